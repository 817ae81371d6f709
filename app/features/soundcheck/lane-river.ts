import type { Palette } from '~/shared/charts/palette'
import type { RiverBanks, RiverColumn } from './river'
import { bed, bracket, flowing, hatched, line } from './river'

/** The lowest level that is drawn, dBFS; the ceiling is 0, with a bank above it. */
const LOWEST = -96
const BANK = 4

/** The river of one input among many: its ceiling, window, plan and floor, without words, for they stand beside it. */
export function drawLane(
  context: CanvasRenderingContext2D,
  { width, height }: { width: number; height: number },
  columns: readonly RiverColumn[],
  most: number,
  { window, expected, held, floor }: RiverBanks,
  palette: Palette,
): void {
  const right = width - 8
  const y = (level: number) => ((BANK - Math.max(LOWEST, Math.min(BANK, level))) / (BANK - LOWEST)) * height
  const x = (i: number) => ((most - columns.length + i) / most) * right
  context.clearRect(0, 0, width, height)
  hatched(context, 0, 0, right, y(0), palette.ceiling)
  if (window) {
    context.globalAlpha = 0.35
    context.fillStyle = palette.lip
    context.fillRect(0, y(window.high), right, y(window.low) - y(window.high))
    context.globalAlpha = 1
  }
  if (floor !== null) bed(context, 0, y(floor), right, height, palette.floor)
  flowing(context, columns, x, y, palette)
  if (window) bracket(context, right + 4, y(window.high), y(window.low), palette.ink)
  if (expected) {
    context.setLineDash([5, 4])
    line(context, 0, y(expected.level), right, y(expected.level), palette.change, 1.5)
    context.setLineDash([])
  }
  if (held !== null) line(context, right - 14, y(held), right, y(held), palette.ceiling, 2)
  line(context, 0, y(0), right, y(0), palette.ceiling, 1.5)
}
