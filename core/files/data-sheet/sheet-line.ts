/** One line of a data sheet, in the cells that it is laid out in, and where it stands. */
export interface SheetLine {
  readonly cells: readonly string[]
  /** Counted from 1, on its page where there are pages. */
  readonly line: number
  readonly page?: number
}

/** A piece of text on a page: its left end, its baseline, how wide and how high it is, in the page’s own unit. */
export interface PlacedText {
  readonly text: string
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** Ligatures and other spellings of one sign; a row of dots between a name and its figure is a gap. */
const tidy = (text: string): string =>
  text
    .normalize('NFKC')
    .replace(/Ω/g, 'Ω')
    .replace(/μ/g, 'µ')
    .replace(/(?<!\d\s*)\s*\.{3}\s*|\s*\.{4,}\s*/g, '\t')

/** Two blanks, a tab or an upright stroke part cells. */
const CELL_END = /\t+|\s{2,}|\s*\|\s*/

const lineOf = (cells: readonly string[], line: number): SheetLine[] => {
  const kept = cells.map((cell) => cell.trim())
  return kept.some((cell) => cell !== '') ? [{ cells: kept, line }] : []
}

/** Lines of pasted text. */
export const linesOfText = (text: string): SheetLine[] =>
  text.split(/\r\n|[\n\r]/).flatMap((line, i) => lineOf(tidy(line).trim().split(CELL_END), i + 1))

/** Lines of a table that was read into its cells. */
export const linesOfCells = (rows: readonly (readonly string[])[]): SheetLine[] =>
  rows.flatMap((cells, i) => lineOf(cells.map(tidy), i + 1))

/** The sign that parts the cells of a text that is a table: at least two lines, most of them parted by it. */
export function cellSign(text: string): string | null {
  const lines = text.split(/[\n\r]+/).filter((line) => line.trim() !== '')
  return (
    [';', '\t'].find(
      (sign) => lines.length > 1 && lines.filter((line) => line.includes(sign)).length > lines.length / 2,
    ) ?? null
  )
}

/** A gap of so many heights of the text parts words, or cells. */
const WORD_GAP = 0.12
const CELL_GAP = 0.9

/** Lines of a page, from its pieces of text: what stands at one height is a line, what stands apart in it a cell. */
export function linesOfPage(pieces: readonly PlacedText[], page: number): SheetLine[] {
  const rows: PlacedText[][] = []
  for (const piece of pieces.filter(({ text }) => text.trim() !== '').sort((a, b) => b.y - a.y || a.x - b.x)) {
    const row = rows.at(-1)
    // Raised and lowered letters stand within half of a height.
    if (row && Math.abs((row[0]?.y ?? 0) - piece.y) < 0.5 * Math.max(piece.height, row[0]?.height ?? 0)) row.push(piece)
    else rows.push([piece])
  }
  return rows.flatMap((row, i) => lineOf(cellsOf(row), i + 1)).map((line) => ({ ...line, page }))
}

function cellsOf(row: PlacedText[]): string[] {
  const cells: string[] = []
  let end = -Infinity
  for (const { text, x, width, height } of row.sort((a, b) => a.x - b.x)) {
    const gap = x - end
    if (cells.length === 0 || gap > CELL_GAP * height) cells.push(text)
    else cells.push(`${cells.pop() ?? ''}${gap > WORD_GAP * height ? ' ' : ''}${text}`)
    end = x + width
  }
  return cells.map(tidy)
}
