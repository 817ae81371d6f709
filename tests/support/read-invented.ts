import Papa from 'papaparse'
import { blankGear } from '#core/edits'
import type { DataSheet, SheetLine } from '#core/files/data-sheet'
import { linesOfCells, linesOfText, readDataSheet, sheetTargets } from '#core/files/data-sheet'
import type { Gear } from '#core/gear'
import { withChoice } from '#core/gear'
import type { InventedSheet } from './data-sheets'

/** A device that a sheet can be of, with every sort of port. */
export function deviceOf({ of }: Pick<InventedSheet, 'of'>): Gear {
  if (of === 'digital microphone') return withChoice(blankGear('microphone', 'box', 'Box'), 'output', 'digital')
  const gear = blankGear(of, 'box', 'Box')
  if (gear.kind !== 'interface') return gear
  const [input] = gear.inputs
  const [output] = gear.outputs
  if (input?.type !== 'mic' || !output) throw new Error('a fresh interface has a microphone input and an output')
  return {
    ...gear,
    inputs: [input, { ...input, id: 'in2', type: 'line' }, { ...input, id: 'in3', type: 'instrument' }],
    outputs: [output, { ...output, id: 'line', type: 'line' }],
  }
}

/** What is read out of a sheet: what is chosen for each port, and what is open. */
export interface ReadOut {
  values: Record<string, Record<string, number | string>>
  open: string[]
  sheet: DataSheet
}

export function readOut(invented: Pick<InventedSheet, 'of'>, lines: readonly SheetLine[]): ReadOut {
  const device = deviceOf(invented)
  const sheet = readDataSheet(lines, sheetTargets(device))
  const values: ReadOut['values'] = {}
  const open: string[] = []
  for (const { target, key, candidates, chosen, isOpen } of sheet.figures) {
    const port = target === device.id ? '' : target
    if (isOpen) open.push(`${port} ${key}`.trim())
    const taken = chosen === null ? undefined : candidates[chosen]
    if (taken) values[port] = { ...values[port], [key]: taken.value, ...taken.beside }
  }
  return { values, open, sheet }
}

export const linesOf = ({ as, sheet }: Pick<InventedSheet, 'as' | 'sheet'>): SheetLine[] =>
  as === 'table' ? linesOfCells(Papa.parse<string[]>(sheet).data) : linesOfText(sheet)

/** How many figures were read right, wrong and not at all; what is wrong and marked as open counts as missed. */
export function judged({ says }: InventedSheet, { values, open }: Pick<ReadOut, 'values' | 'open'>) {
  const told: string[] = []
  let right = 0
  let all = 0
  let wrong = 0
  const isOpen = (port: string, key: string) => open.includes(`${port} ${key}`.trim())
  for (const [port, wanted] of Object.entries(says))
    for (const [key, value] of Object.entries(wanted)) {
      all++
      const found = values[port]?.[key]
      const same =
        typeof value === 'number' && typeof found === 'number'
          ? Math.abs(found - value) <= Math.abs(value) * 1e-3
          : found === value
      if (same) right++
      else told.push(`${port} ${key}: ${found ?? 'nothing'} in place of ${value}`)
      if (!same && found !== undefined && !isOpen(port, key)) wrong++
    }
  for (const [port, found] of Object.entries(values))
    for (const [key, value] of Object.entries(found))
      if (says[port]?.[key] === undefined && !isOpen(port, key)) {
        wrong++
        told.push(`${port} ${key}: ${value} where the sheet says nothing`)
      }
  return { right, all, wrong, told }
}
