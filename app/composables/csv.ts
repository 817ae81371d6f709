import Papa from 'papaparse'
import { guardedCell, unguardedCell } from '#core/files'

/** A table as CSV (RFC 4180), with every text guarded against being taken for a formula. The one writer of this format. */
export const writeCsv = (table: readonly (readonly (string | number)[])[]): string =>
  `${Papa.unparse(table.map((row) => row.map((cell) => (typeof cell === 'number' ? cell : guardedCell(cell)))))}\r\n`

export type CsvReading = { ok: true; table: string[][] } | { ok: false; broken: { row: number; message: string }[] }

/** The cells of a CSV text. Blank lines are kept, so that every fault names the row that a spreadsheet shows. */
export function readCsv(text: string): CsvReading {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false })
  // A delimiter that could not be guessed is told by the missing columns.
  const broken = errors.filter(({ type }) => type !== 'Delimiter').slice(0, 100)
  return broken.length === 0
    ? { ok: true, table: data.map((row) => row.map(unguardedCell)) }
    : { ok: false, broken: broken.map(({ row, message }) => ({ row: (row ?? 0) + 1, message })) }
}
