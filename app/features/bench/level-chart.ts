import type { ChartConfiguration } from 'chart.js'
import type { Overview } from '#core/measure/levels/overview'
import type { Palette } from '~/shared/charts/palette'
import { axis, plainOptions } from '~/shared/charts/plain-axes'

/** Width of the vertical axis: the plot begins there, so that a place on the drawing is a time. */
export const LEVEL_AXIS = 46
/** The lowest level that is drawn, dBFS. */
const BOTTOM = -90

const level = (amplitude: number) => Math.max(BOTTOM, amplitude > 0 ? 20 * Math.log10(amplitude) : BOTTOM)

/** Peak and RMS over time, with the chosen stretch shaded. */
export const levelChart =
  (overview: Overview, seconds: number, stretch: { from: number; to: number }) =>
  (palette: Palette): ChartConfiguration => {
    const at = (i: number) => Math.min(seconds, (i + 0.5) * overview.seconds)
    const line = (values: readonly number[]) => values.map((y, i) => ({ x: at(i), y }))
    return {
      type: 'line',
      data: {
        datasets: [
          {
            data: line(overview.power.map((power) => level(Math.sqrt(2 * power)))),
            borderColor: palette.ink,
            borderWidth: 1,
            pointRadius: 0,
            fill: false,
          },
          {
            data: line(overview.high.map((high, i) => level(Math.max(high, -(overview.low[i] as number))))),
            borderColor: palette.body,
            backgroundColor: palette.lip,
            borderWidth: 1,
            pointRadius: 0,
            fill: 'start',
          },
          {
            data: [
              { x: stretch.from, y: 0 },
              { x: stretch.to, y: 0 },
            ],
            borderWidth: 0,
            backgroundColor: `${palette.change}2e`,
            pointRadius: 0,
            fill: 'start',
          },
        ],
      },
      options: {
        ...plainOptions,
        events: [],
        layout: { padding: 0 },
        scales: {
          x: axis(palette, 'Time, s', { type: 'linear', min: 0, max: seconds }),
          y: axis(palette, 'dBFS', {
            type: 'linear',
            min: BOTTOM,
            max: 0,
            afterFit: (scale: { width: number }) => {
              scale.width = LEVEL_AXIS
            },
          }),
        },
      },
    }
  }
