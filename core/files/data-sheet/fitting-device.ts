import type { Gear } from '../../gear'
import { readDataSheet } from './read-data-sheet'
import type { SheetLine } from './sheet-line'
import { sheetTargets } from './targets'

/** A device that a sheet may be of, and its port in hand. */
export interface SheetDevice {
  gear: Gear
  port?: string | undefined
}

/**
 * Which of several devices a data sheet is of: the one of which it has the most figures; the one in hand where no other has more.
 * @returns its place in the list
 */
export function fittingDevice(lines: readonly SheetLine[], devices: readonly SheetDevice[], inHand: number): number {
  const found = devices.map(
    ({ gear, port }) =>
      readDataSheet(lines, sheetTargets(gear, port)).figures.filter(({ chosen }) => chosen !== null).length,
  )
  const most = Math.max(...found)
  return found[inHand] === most ? inHand : found.indexOf(most)
}
