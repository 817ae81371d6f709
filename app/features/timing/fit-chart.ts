import type { ChartConfiguration } from 'chart.js'
import type { Palette } from '~/shared/charts/palette'
import { axis, plainOptions } from '~/shared/charts/plain-axes'

export interface FitPoint {
  bufferMs: number
  milliseconds: number
}

/** Measured round trips against the time of their buffer, with the line fitted through them. */
export const fitChart =
  (measured: readonly FitPoint[], line: readonly FitPoint[]) =>
  (palette: Palette): ChartConfiguration => ({
    type: 'scatter',
    data: {
      datasets: [
        {
          type: 'line',
          data: line.map(({ bufferMs, milliseconds }) => ({ x: bufferMs, y: milliseconds })),
          borderColor: palette.body,
          borderWidth: 1.5,
          pointRadius: 0,
        },
        {
          data: measured.map(({ bufferMs, milliseconds }) => ({ x: bufferMs, y: milliseconds })),
          backgroundColor: palette.change,
          borderColor: palette.sheet,
          borderWidth: 1,
          pointRadius: 5,
          pointStyle: 'rectRot',
        },
      ],
    },
    options: {
      ...plainOptions,
      events: [],
      scales: {
        x: axis(palette, 'One buffer, ms', { type: 'linear', min: 0 }),
        y: axis(palette, 'Round trip, ms', { type: 'linear', min: 0 }),
      },
    },
  })
