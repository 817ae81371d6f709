import type { ChartConfiguration } from 'chart.js'
import { combResponse } from '#core/monitoring/comb'
import type { Palette } from '~/shared/charts/palette'
import { axis, plainOptions } from '~/shared/charts/plain-axes'

/** Ends of hearing, Hz, and how many frequencies are worked out between them. */
const [LOWEST, HIGHEST, POINTS] = [20, 20_000, 1600]

/** Room for the deepest notch, on a round number; equal paths fall without end, dB. */
const lowest = (difference: number) => Math.max(-42, 6 * Math.floor((combResponse(1, difference, 500) - 3) / 6))

/** The response of two paths heard at once, 20 Hz to 20 kHz. */
export const combChart =
  (delayMs: number, difference: number) =>
  (palette: Palette): ChartConfiguration => ({
    type: 'line',
    data: {
      datasets: [
        {
          data: Array.from({ length: POINTS }, (_, i) => {
            const frequency = LOWEST * (HIGHEST / LOWEST) ** (i / (POINTS - 1))
            return { x: frequency, y: Math.max(-60, combResponse(delayMs, difference, frequency)) }
          }),
          borderColor: palette.ceiling,
          borderWidth: 1.25,
          pointRadius: 0,
        },
      ],
    },
    options: {
      ...plainOptions,
      events: [],
      scales: {
        x: axis(palette, 'Frequency, Hz', {
          type: 'logarithmic',
          min: LOWEST,
          max: HIGHEST,
          ticks: {
            color: palette.muted,
            maxRotation: 0,
            font: { family: 'JetBrains Mono Variable', size: 11 },
            callback: (value: number) =>
              [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000].includes(value)
                ? value >= 1000
                  ? `${value / 1000} k`
                  : String(value)
                : '',
          },
        }),
        y: axis(palette, 'dB against one path', { type: 'linear', min: lowest(difference), max: 12 }),
      },
    },
  })
