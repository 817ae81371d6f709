import type { Chart, Plugin } from 'chart.js'
import type { Palette } from './palette'
import type { SectionColumn, SectionModel } from './section-model'

/** Pixels below which a piece of the picture has no room for its words. */
const LEGIBLE = 15

/** Pixels of width below which a column has no room for units beside its numbers. */
const NARROW = 130

export interface Scene {
  model: SectionModel
  palette: Palette
}

/** The lettering of the section: dimension lines, levels, the ceilings’ names, the window. It asks for the scene at every drawing. */
export function sectionDrawing(scene: () => Scene): Plugin<'line'> {
  return {
    id: 'section-drawing',
    afterDatasetsDraw(chart) {
      const { model, palette } = scene()
      const pen = new Pen(chart, model, palette)
      model.columns.forEach((column, i) => drawColumn(pen, column, i))
      if (model.window) drawWindow(pen, model.window)
    },
  }
}

class Pen {
  readonly context: CanvasRenderingContext2D
  readonly width: number

  constructor(
    private readonly chart: Chart,
    readonly model: SectionModel,
    readonly palette: Palette,
  ) {
    this.context = chart.ctx
    this.width = chart.chartArea.width / Math.max(1, model.columns.length)
  }

  x = (column: number) => this.chart.scales.x?.getPixelForValue(column) ?? 0
  y = (level: number) => this.chart.scales.y?.getPixelForValue(level) ?? 0
  get narrow() {
    return this.width < NARROW
  }
  get top() {
    return this.chart.chartArea.top
  }
  get bottom() {
    return this.chart.chartArea.bottom
  }

  text(
    words: string,
    x: number,
    y: number,
    colour: string,
    { bold = false, align = 'left' as CanvasTextAlign, mono = true, size = 11.5 } = {},
  ) {
    const { context } = this
    context.font = `${bold ? 650 : 450} ${size}px "${mono ? 'JetBrains Mono Variable' : 'Instrument Sans Variable'}"`
    context.textAlign = align
    context.textBaseline = 'middle'
    context.fillStyle = colour
    context.fillText(words, x, y)
  }

  /** A dimension line between two heights, with arrowheads where there is room for them. */
  dimension(x: number, from: number, to: number, colour: string, arrows: boolean) {
    const { context } = this
    context.strokeStyle = colour
    context.fillStyle = colour
    context.lineWidth = 1
    context.beginPath()
    context.moveTo(x, from)
    context.lineTo(x, to)
    context.stroke()
    if (!arrows || Math.abs(to - from) < LEGIBLE) return
    for (const [tip, way] of [
      [from, 1],
      [to, -1],
    ] as const) {
      context.beginPath()
      context.moveTo(x, tip)
      context.lineTo(x - 3, tip + way * 6)
      context.lineTo(x + 3, tip + way * 6)
      context.fill()
    }
  }
}

function drawColumn(pen: Pen, column: SectionColumn, i: number) {
  if (i > 0) drawJoint(pen, i)
  drawCeiling(pen, column, i)
  drawHeadroom(pen, column, i)
  drawLevels(pen, column, i)
  drawFloor(pen, column, i)
}

function drawJoint(pen: Pen, i: number) {
  const { context } = pen
  context.save()
  context.setLineDash([1, 4])
  context.strokeStyle = pen.palette.muted
  context.beginPath()
  context.moveTo(pen.x(i), pen.top)
  context.lineTo(pen.x(i), pen.bottom)
  context.stroke()
  context.restore()
}

function drawCeiling(pen: Pen, column: SectionColumn, i: number) {
  const y = column.ceiling === null ? pen.top + 9 : Math.max(pen.top + 9, pen.y(column.ceiling) - 10)
  const colour = column.ceiling === null ? pen.palette.muted : pen.palette.ceiling
  plate(pen, column.ceilingText, pen.x(i + 0.5), y, colour)
}

/** Words on a small ground, so that a pattern behind them does not break the letters. */
function plate(pen: Pen, words: string, x: number, y: number, colour: string) {
  const { context } = pen
  context.font = '500 11.5px "JetBrains Mono Variable"'
  const half = context.measureText(words).width / 2 + 5
  context.fillStyle = pen.palette.sheet
  context.fillRect(x - half, y - 8, 2 * half, 16)
  pen.text(words, x, y, colour, { align: 'center' })
}

function drawHeadroom(pen: Pen, column: SectionColumn, i: number) {
  if (column.ceiling === null || column.headroomText === null) return
  const x = pen.x(i) + pen.width * 0.36
  const [ceiling, peak, surge] = [pen.y(column.ceiling), pen.y(column.peak), pen.y(column.surge)]
  const colour = column.tightest || column.clipped ? pen.palette.ceiling : pen.palette.muted
  pen.dimension(x, ceiling, peak, colour, true)
  // Where the band leaves no room under the ceiling, the words go below the band.
  const room = surge - ceiling
  const below = Math.max(pen.y(column.average), ceiling) + 12
  const at = room >= LEGIBLE ? ceiling + room / 2 : below + (pen.narrow ? 18 : 0)
  const bold = column.tightest || column.clipped
  pen.text(column.headroomText, x + 7, at, colour, { bold, size: bold ? 14 : 11.5 })
  // Where there is no room beside the number, the word goes under it.
  if (bold)
    pen.text(column.clipped ? 'clips' : 'tightest', x + (pen.narrow ? 7 : 52), at + (pen.narrow ? 14 : 0), colour, {
      mono: false,
    })
  if (column.surgeText && room > 3.2 * LEGIBLE && pen.width > 130) {
    pen.text(`${column.surgeText} with the surge`, x + 7, at + 15, pen.palette.muted, { mono: false, size: 11 })
  }
}

function drawLevels(pen: Pen, column: SectionColumn, i: number) {
  const x = pen.x(i + 0.6)
  const [peak, average] = [pen.y(column.peak), pen.y(column.average)]
  const inside = average - peak >= LEGIBLE
  if (average - peak >= 2.2 * LEGIBLE)
    pen.text(`peak ${column.peakText}`, x, peak + 9, pen.palette.onBody, { align: 'center' })
  pen.text(
    pen.narrow ? column.averageShort : column.averageText,
    x,
    inside ? average - 9 : average + 9,
    inside ? pen.palette.onBody : pen.palette.ink,
    { bold: true, align: 'center' },
  )
}

function drawFloor(pen: Pen, column: SectionColumn, i: number) {
  if (column.noise === null || column.snrText === null) {
    return pen.text(
      pen.narrow ? column.noiseShort : column.noiseText,
      pen.x(i + 0.5),
      pen.bottom - 10,
      pen.palette.muted,
      { align: 'center', mono: false },
    )
  }
  const x = pen.x(i) + pen.width * 0.82
  const [average, noise] = [pen.y(column.average), pen.y(column.noise)]
  pen.dimension(x, average + 4, noise, pen.palette.floor, false)
  pen.text(column.snrText, x - 6, (average + noise) / 2, pen.palette.floor, { align: 'right' })
  plate(
    pen,
    pen.narrow ? column.noiseShort : column.noiseText,
    pen.x(i + 0.5),
    Math.min(pen.bottom - 10, noise + 14),
    pen.palette.floor,
  )
  if (i === 0 && pen.bottom - noise > 3 * LEGIBLE)
    pen.text('noise bed, A-weighted', pen.x(0) + 8, pen.bottom - 9, pen.palette.floor, { mono: false, size: 11 })
}

/** The target’s window as a bracket at the recorder’s edge. */
function drawWindow(pen: Pen, { low, high, label }: NonNullable<SectionModel['window']>) {
  const x = pen.x(pen.model.columns.length) - 5
  const [top, bottom] = [pen.y(high), pen.y(low)]
  const { context } = pen
  context.strokeStyle = pen.palette.ink
  context.lineWidth = 1.75
  context.beginPath()
  context.moveTo(x - 9, top)
  context.lineTo(x, top)
  context.lineTo(x, bottom)
  context.lineTo(x - 9, bottom)
  context.stroke()
  plate(pen, label, x - 36, top - 3, pen.palette.ink)
}
