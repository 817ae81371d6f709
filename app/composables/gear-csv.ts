import Papa from 'papaparse'
import type { Gear, GearFileReading } from '#core/session'
import { gearFromTable, gearToTable } from '#core/session'

/** The text of a gear table, as spreadsheets read it. */
export const writeGearCsv = (items: readonly Gear[]): string => `${Papa.unparse(gearToTable(items))}\r\n`

/** Reads one. Blank lines are kept while parsing, so that every fault names the row that a spreadsheet shows. */
export function readGearCsv(text: string): GearFileReading {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: false })
  // A delimiter that could not be guessed is told by the missing columns.
  const broken = errors.filter(({ type }) => type !== 'Delimiter')
  if (broken.length === 0) return gearFromTable(data)
  return {
    ok: false,
    faults: broken
      .slice(0, 100)
      .map(({ row, message }) => ({
        path: `row ${(row ?? 0) + 1}`,
        code: 'not-csv',
        message: `This row is not a table’s (${message}). Put text with quotes in quotes, and close them.`,
      })),
  }
}
