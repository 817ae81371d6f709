import type { ChartConfiguration } from 'chart.js'
import type { MeasuredSheet } from '#core/files'
import type { Palette } from '~/shared/charts/palette'
import { frequencyAxis } from '~/shared/charts/frequency-axis'
import { axis, plainOptions } from '~/shared/charts/plain-axes'

/** The least that the chart shows below and above 1 kHz, dB. */
const LEAST = 3

/** The response of a sheet, with that of another behind it as a thinner line. */
export const responseChart =
  (sheet: MeasuredSheet, beside: MeasuredSheet | null) =>
  (palette: Palette): ChartConfiguration => {
    const points = ({ response }: MeasuredSheet) => response.map(({ frequency, level }) => ({ x: frequency, y: level }))
    const all = [sheet, ...(beside ? [beside] : [])].flatMap(({ response }) => response.map(({ level }) => level))
    const line = { pointRadius: 0, fill: false as const }
    return {
      type: 'line',
      data: {
        datasets: [
          { data: points(sheet), borderColor: palette.change, borderWidth: 2, ...line },
          ...(beside
            ? [{ data: points(beside), borderColor: palette.muted, borderWidth: 1, borderDash: [5, 3], ...line }]
            : []),
        ],
      },
      options: {
        ...plainOptions,
        events: [],
        scales: {
          x: frequencyAxis(palette),
          y: axis(palette, 'dB against 1 kHz', {
            type: 'linear',
            min: Math.min(-LEAST, Math.floor(Math.min(...all))),
            max: Math.max(LEAST / 3, Math.ceil(Math.max(...all))),
          }),
        },
      },
    }
  }
