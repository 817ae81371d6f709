import type { ChartConfiguration } from 'chart.js'
import type { StretchSpectrum } from '#core/measure/stretch-spectrum'
import type { Palette } from '~/shared/charts/palette'
import { frequencyAxis } from '~/shared/charts/frequency-axis'
import { axis, plainOptions } from '~/shared/charts/plain-axes'

/** Third octaves as steps, and the narrow bands as a line in front. */
export const spectrumChart =
  ({ thirds, narrow }: StretchSpectrum) =>
  (palette: Palette): ChartConfiguration => {
    const heard = [...thirds, ...narrow].flatMap(({ level }) => (level === null ? [] : [level]))
    const top = 10 * Math.ceil(Math.max(-100, ...heard) / 10)
    const line = (bands: StretchSpectrum['thirds']) =>
      bands.flatMap(({ frequency, level }) => (level === null ? [] : [{ x: frequency, y: level }]))
    return {
      type: 'line',
      data: {
        datasets: [
          { data: line(narrow), borderColor: palette.ink, borderWidth: 1, pointRadius: 0, fill: false },
          {
            data: line(thirds),
            stepped: 'middle',
            borderColor: palette.body,
            backgroundColor: palette.lip,
            borderWidth: 1,
            pointRadius: 0,
            fill: 'start',
          },
        ],
      },
      options: {
        ...plainOptions,
        events: [],
        scales: {
          x: frequencyAxis(palette),
          y: axis(palette, 'dBFS in the band', {
            type: 'linear',
            min: Math.max(top - 110, 10 * Math.floor((Math.min(top, ...heard) - 10) / 10)),
            max: top,
          }),
        },
      },
    }
  }
