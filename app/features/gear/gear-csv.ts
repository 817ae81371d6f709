import type { Gear } from '#core/gear'
import type { GearFileReading } from '#core/files'
import { gearFromTable, gearToTable } from '#core/files'
import { readCsv, writeCsv } from '~/composables/csv'

/** The text of a gear table, as spreadsheets read it. */
export const writeGearCsv = (items: readonly Gear[]): string => writeCsv(gearToTable(items))

export function readGearCsv(text: string): GearFileReading {
  const reading = readCsv(text)
  if (reading.ok) return gearFromTable(reading.table)
  return {
    ok: false,
    faults: reading.broken.map(({ row, message }) => ({
      path: `row ${row}`,
      code: 'not-csv',
      message: `This row does not fit the table (${message}). Put text with quotes in quotes, and close them.`,
    })),
  }
}
