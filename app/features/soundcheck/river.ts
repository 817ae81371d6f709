import type { Palette } from '~/shared/charts/palette'

/** A moment of what flows: levels in dBFS; `null` for silence. */
export interface RiverColumn {
  peak: number | null
  average: number | null
}

/** What stands around the river. Levels in dBFS. */
export interface RiverBanks {
  /** The target’s window. */
  window: { low: number; high: number } | null
  /** Where the peak is expected with the gains as they are set, and how sure that is (k = 2). */
  expected: { level: number; give: number } | null
  held: number | null
  floor: number | null
}

/** The lowest level that is drawn, dBFS; the ceiling is 0, with a bank above it. */
const LOWEST = -96
const BANK = 6

/** The river as it flows under its ceiling, oldest on the left: drawn anew twenty times a second, so on a canvas. */
export function drawRiver(
  context: CanvasRenderingContext2D,
  { width, height }: { width: number; height: number },
  columns: readonly RiverColumn[],
  most: number,
  banks: RiverBanks,
  palette: Palette,
): void {
  const left = 30
  const right = width - 8
  const y = (level: number) => ((BANK - Math.max(LOWEST, Math.min(BANK, level))) / (BANK - LOWEST)) * height
  const x = (i: number) => left + ((most - columns.length + i) / most) * (right - left)
  context.clearRect(0, 0, width, height)
  context.font = '11px "JetBrains Mono Variable", ui-monospace, monospace'
  context.textBaseline = 'middle'
  hatched(context, left, 0, right, y(0), palette.ceiling)
  for (let level = -20; level > LOWEST; level -= 20) {
    line(context, left, y(level), right, y(level), palette.line)
    label(context, String(-level), left - 6, y(level), palette.muted, 'right')
  }
  if (banks.window) {
    context.globalAlpha = 0.35
    context.fillStyle = palette.lip
    context.fillRect(left, y(banks.window.high), right - left, y(banks.window.low) - y(banks.window.high))
    context.globalAlpha = 1
  }
  if (banks.floor !== null) bed(context, left, y(banks.floor), right, height, palette.floor)
  flowing(context, columns, x, y, palette)
  if (banks.window) bracket(context, right, y(banks.window.high), y(banks.window.low), palette.ink)
  if (banks.expected) expected(context, left, right, y, banks.expected, palette)
  line(context, left, y(0), right, y(0), palette.ceiling, 2)
  label(context, '0 dBFS', left + 6, y(0) / 2 + 1, palette.ceiling, 'left')
  if (banks.floor !== null)
    label(
      context,
      `floor ${signed(banks.floor)} dBFS(A)`,
      left + 6,
      Math.min(height - 8, y(banks.floor) - 9),
      palette.floor,
      'left',
    )
  if (banks.held !== null) whatIsLeft(context, right, y, banks.held, palette)
}

const signed = (level: number) => level.toFixed(1).replace('-', '−')

export function line(
  context: CanvasRenderingContext2D,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  colour: string,
  width = 1,
): void {
  context.strokeStyle = colour
  context.lineWidth = width
  context.beginPath()
  context.moveTo(x1, y1)
  context.lineTo(x2, y2)
  context.stroke()
}

function label(
  context: CanvasRenderingContext2D,
  text: string,
  x: number,
  y: number,
  colour: string,
  align: CanvasTextAlign,
): void {
  context.fillStyle = colour
  context.textAlign = align
  context.fillText(text, x, y)
}

/** The bank above the ceiling. */
export function hatched(
  context: CanvasRenderingContext2D,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  colour: string,
): void {
  context.save()
  context.beginPath()
  context.rect(x1, y1, x2 - x1, y2 - y1)
  context.clip()
  context.globalAlpha = 0.5
  for (let x = x1 - (y2 - y1); x < x2; x += 9) line(context, x, y2, x + (y2 - y1), y1, colour)
  context.restore()
}

/** The bed under the floor, stippled. */
export function bed(
  context: CanvasRenderingContext2D,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  colour: string,
): void {
  const pattern = stipple(context, colour)
  if (pattern) {
    context.fillStyle = pattern
    context.globalAlpha = 0.55
    context.fillRect(x1, y1, x2 - x1, y2 - y1)
    context.globalAlpha = 1
  }
  line(context, x1, y1, x2, y1, colour)
}

/** Thousands of dots twenty times a second would be half of the drawing's work: they are drawn once, and repeated. */
const stipples = new Map<string, CanvasPattern | null>()
function stipple(context: CanvasRenderingContext2D, colour: string): CanvasPattern | null {
  const known = stipples.get(colour)
  if (known !== undefined) return known
  const tile = document.createElement('canvas')
  tile.width = 8
  tile.height = 12
  const dots = tile.getContext('2d')
  if (!dots) return null
  dots.fillStyle = colour
  dots.fillRect(0, 4, 1.2, 1.2)
  dots.fillRect(4, 10, 1.2, 1.2)
  const pattern = context.createPattern(tile, 'repeat')
  stipples.set(colour, pattern)
  return pattern
}

/** From its average up to its peaks. */
export function flowing(
  context: CanvasRenderingContext2D,
  columns: readonly RiverColumn[],
  x: (i: number) => number,
  y: (level: number) => number,
  palette: Palette,
): void {
  context.fillStyle = palette.body
  context.strokeStyle = palette.change
  context.lineWidth = 1
  let from: number | null = null
  for (let i = 0; i <= columns.length; i++) {
    const sounds = i < columns.length && columns[i]?.peak != null
    if (sounds && from === null) from = i
    if (sounds || from === null) continue
    const stretch = columns.slice(from, i)
    const at = from
    context.beginPath()
    stretch.forEach(({ peak }, k) => context.lineTo(x(at + k), y(peak ?? LOWEST)))
    for (let k = stretch.length - 1; k >= 0; k--) context.lineTo(x(at + k), y(stretch[k]?.average ?? LOWEST) + 1)
    context.closePath()
    context.fill()
    context.beginPath()
    stretch.forEach(({ peak }, k) => context.lineTo(x(at + k), y(peak ?? LOWEST)))
    context.stroke()
    from = null
  }
}

/** The window, as everywhere. */
export function bracket(context: CanvasRenderingContext2D, x: number, y1: number, y2: number, colour: string): void {
  context.strokeStyle = colour
  context.lineWidth = 2
  context.beginPath()
  context.moveTo(x - 6, y1)
  context.lineTo(x, y1)
  context.lineTo(x, y2)
  context.lineTo(x - 6, y2)
  context.stroke()
}

function expected(
  context: CanvasRenderingContext2D,
  x1: number,
  x2: number,
  y: (level: number) => number,
  { level, give }: NonNullable<RiverBanks['expected']>,
  palette: Palette,
): void {
  context.setLineDash([5, 4])
  line(context, x1, y(level), x2, y(level), palette.change, 1.5)
  context.setLineDash([2, 4])
  if (give > 0) for (const edge of [level - give, level + give]) line(context, x1, y(edge), x2, y(edge), palette.change)
  context.setLineDash([])
  label(context, `expected ${signed(level)}`, x1 + 6, y(level) - 8, palette.change, 'left')
}

/** What is left over the highest peak of the passage, as a dimension line. */
function whatIsLeft(
  context: CanvasRenderingContext2D,
  right: number,
  y: (level: number) => number,
  held: number,
  palette: Palette,
): void {
  const x = right - 96
  line(context, x, y(0), x, y(held), palette.ceiling, 1.5)
  line(context, x - 4, y(held), x + 4, y(held), palette.ceiling, 1.5)
  const words = held >= 0 ? 'over' : `${signed(-held)} left`
  label(context, words, x - 6, Math.max(y(0) + 9, (y(0) + y(held)) / 2), palette.ceiling, 'right')
}
