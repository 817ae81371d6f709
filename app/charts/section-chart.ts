import type { ChartConfiguration, ChartDataset, Point as XY } from 'chart.js'
import type { Palette } from './palette'
import type { Scene } from './section-drawing'
import type { SectionColumn, SectionModel } from './section-model'

/** Width of the ruler at the left, px: the cards below begin where it ends. */
export const RULER = 52

/** Where a column’s level stands still; between two columns the band runs from the one level to the other. */
const PLATEAU = { from: 0.15, to: 0.85 }

type Line = ChartDataset<'line', XY[]>

/** The section as a Chart.js chart. A pure function of what is drawn and what it is drawn with. */
export function sectionChart({ model, palette }: Scene): ChartConfiguration<'line', XY[]> {
  return {
    type: 'line',
    data: { datasets: layers(model, palette) },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      events: [],
      layout: { padding: 0 },
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: {
        x: { type: 'linear', min: 0, max: model.columns.length, display: false },
        y: {
          type: 'linear',
          min: model.bottom,
          max: model.top,
          afterFit: (scale) => {
            scale.width = RULER
          },
          border: { display: false },
          grid: { color: palette.line, drawTicks: false },
          ticks: {
            stepSize: 20,
            color: palette.muted,
            padding: 8,
            font: { family: 'JetBrains Mono Variable', size: 11 },
            callback: (value) => rulerText(Number(value), model),
          },
        },
      },
    },
  }
}

/** Under the ceiling the ruler counts down from clipping; the ends of the axis carry no number. */
function rulerText(value: number, model: SectionModel): string {
  if (value % 20 !== 0) return ''
  if (model.reading === 'own') return String(value).replace('-', '−')
  return value === 0 ? 'clip' : value < 0 ? String(-value) : ''
}

function layers(model: SectionModel, palette: Palette): Line[] {
  const { columns } = model
  const line = (valueOf: (column: SectionColumn) => number | null, style: Partial<Line>): Line => ({
    data: along(columns, valueOf),
    cubicInterpolationMode: 'monotone',
    pointRadius: 0,
    borderWidth: 1,
    spanGaps: false,
    clip: 0,
    ...style,
  })
  return [
    line((each) => each.average, { borderColor: palette.body, borderWidth: 0 }),
    line((each) => each.peak, { fill: { target: 0 }, backgroundColor: palette.body, borderWidth: 0 }),
    line((each) => each.surge, {
      fill: { target: 1 },
      backgroundColor: palette.lip,
      borderColor: palette.body,
      borderDash: [3, 3],
    }),
    line((each) => each.noise, {
      fill: 'start',
      backgroundColor: palette.stipple,
      borderColor: palette.floor,
      borderWidth: 1.25,
    }),
    line((each) => each.ceiling, {
      fill: 'end',
      backgroundColor: palette.hatch,
      borderColor: palette.ceiling,
      borderWidth: 1.25,
      cubicInterpolationMode: model.reading === 'ceiling' ? 'default' : 'monotone',
    }),
  ]
}

function along(columns: readonly SectionColumn[], valueOf: (column: SectionColumn) => number | null): XY[] {
  return columns.flatMap((column, i) => {
    const y = valueOf(column) ?? Number.NaN
    const from = i === 0 ? 0 : i + PLATEAU.from
    const to = i === columns.length - 1 ? columns.length : i + PLATEAU.to
    return [
      { x: from, y },
      { x: (from + to) / 2, y },
      { x: to, y },
    ]
  })
}
