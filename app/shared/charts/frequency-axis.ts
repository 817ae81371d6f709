import type { Palette } from './palette'
import { axis } from './plain-axes'

/** Frequencies that are named. */
const NAMED = [20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 20_000]

/** The audio band on a logarithmic axis. */
export const frequencyAxis = (palette: Palette) =>
  axis(palette, 'Frequency, Hz', {
    type: 'logarithmic',
    min: 18,
    max: 22_000,
    ticks: {
      color: palette.muted,
      maxRotation: 0,
      autoSkip: false,
      font: { family: 'JetBrains Mono Variable', size: 11 },
      callback: (value: number) => (NAMED.includes(value) ? (value < 1000 ? value : `${value / 1000}k`) : ''),
    },
  })
