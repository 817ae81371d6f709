import type { ChartOptions } from 'chart.js'
import type { Palette } from './palette'

type Scale = NonNullable<ChartOptions<'line'>['scales']>[string]

/** An axis in the drawing’s manner: thin lines, figures in the monospaced face, a name with its unit. */
export const axis = (palette: Palette, title: string, more: object = {}): Scale =>
  ({
    border: { color: palette.muted },
    grid: { color: palette.line, drawTicks: false },
    title: { display: true, text: title, color: palette.muted, font: { family: 'Instrument Sans Variable', size: 12 } },
    ticks: { color: palette.muted, font: { family: 'JetBrains Mono Variable', size: 11 } },
    ...more,
  }) as Scale

/** What all small charts share: no animation, no legend, the size of their frame. */
export const plainOptions = {
  animation: false,
  responsive: true,
  maintainAspectRatio: false,
  plugins: { legend: { display: false } },
} as const
