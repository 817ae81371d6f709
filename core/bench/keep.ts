import type { Measurement, Spread } from '../model'
import type { Session } from '../session'
import { editGear, editInput, withMeasurement } from '../edits'
import { spreadOf } from '../model'
import { formatDecimal } from '../units'
import type { Bench, Known, Row } from './procedure'

/** Decimals that are worth keeping. */
export const rounded = (value: number, digits: number): number => Math.round(value * 10 ** digits) / 10 ** digits

/** How it was measured, and how often; with a word on the simulated interface where it was one. */
export const methodOf = (rows: readonly Row[], how: string, repeats = rows.length): string =>
  `${how}${repeats > 1 ? `, ${repeats} repeats` : ''}${rows.some((row) => row.simulated) ? '; on the simulated interface, for practice' : ''}`.slice(
    0,
    500,
  )

export const measurement = (
  value: number,
  digits: number,
  spread: Spread | null,
  method: string,
  on: string,
): Measurement => ({
  value: rounded(value, digits),
  on,
  method,
  ...(spread !== null && { spread: { ...spread, value: rounded(Math.min(100, spread.value), digits + 1) } }),
})

export const keepForInput = (
  session: Session,
  bench: Bench,
  input: string,
  key: string,
  measured: Measurement,
): Session => editInput(session, bench.unit.id, input, (each) => withMeasurement(each, key, measured))

export const keepForOutput = (session: Session, bench: Bench, key: string, measured: Measurement): Session =>
  editGear(session, bench.unit.id, 'interface', (unit) => ({
    ...unit,
    outputs: unit.outputs.map((each) => (each.id === bench.output?.id ? withMeasurement(each, key, measured) : each)),
  }))

/** A line at the end of the session's notes. */
export const keepInNotes = (session: Session, line: string): Session => ({
  ...session,
  notes: session.notes.trim() === '' ? line : `${session.notes.trimEnd()}\n${line}`,
})

/** A measurement of the session in words; `null` where there is none. */
export function knownOf(measured: Measurement | undefined, unit: string, digits: number): Known | null {
  if (!measured) return null
  const spread = spreadOf(measured)
  const around = spread ? ` ± ${formatDecimal(spread.value, digits)}` : ''
  return {
    words: `${formatDecimal(measured.value, digits)} ${unit}${around}`,
    on: measured.on,
    method: measured.method,
  }
}
