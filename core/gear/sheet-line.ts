import { originOf } from './origin'
import { capital, formatShort, lowerCase } from '../units'
import type { FieldTable, NumberField, UnitSymbol } from '../model/field'
import type { Gear } from './kinds'
import { measurementOf, originText } from '../model/tolerance'
import type { Tolerant, ValueOrigin } from '../model/tolerance'

/** Figures of a line at most: it says what somebody looks for, the sheet behind it has the rest. */
const MOST = 3

/** Ranges of controls are told by their scales; loads and slopes are looked up, not looked for. */
const BESIDE: ReadonlySet<string> = new Set(['gainMin', 'gainMax', 'gainStep', 'faderMin', 'faderMax', 'count'])
const BESIDE_UNITS: ReadonlySet<UnitSymbol> = new Set(['Ω', 'm', 'pF/m', 'dB/oct'])
/** Units that say themselves what a figure is of. */
const TELLING: ReadonlySet<UnitSymbol> = new Set(['mV/Pa', 'dBA', 'dB SPL'])

interface Figure {
  words: string
  origin: ValueOrigin
}

/**
 * What is known of a device, in a line: its first figures and where they are from.
 * Example: "Data sheet: 15 mV/Pa, 14 dBA, 134 dB SPL"; "Measured: maximum input level 14.6 dBu; data sheet: EIN −127 dBu".
 * @param kind of what the figures are
 * @param shown the fields that the sheet has
 */
export function sheetLine(kind: Gear['kind'] | 'room', owner: Tolerant & { specs: object }, shown: FieldTable): string {
  const figures = Object.entries(shown).flatMap(([key, field]) => figureOf(kind, owner, key, field))
  const byOrigin = (['measured', 'printed', 'assumed'] as const).flatMap((origin) => {
    const words = figures
      .slice(0, MOST)
      .filter((each) => each.origin === origin)
      .map((each) => each.words)
    return words.length > 0 ? [`${originText[origin]}: ${words.join(', ')}`] : []
  })
  return byOrigin.length > 0 ? capital(byOrigin.join('; ')) : 'Data sheet: nothing entered yet'
}

function figureOf(
  kind: Gear['kind'] | 'room',
  owner: Tolerant & { specs: object },
  key: string,
  field: NumberField,
): Figure[] {
  const value = measurementOf(owner, key)?.value ?? (owner.specs as Record<string, unknown>)[key]
  if (typeof value !== 'number' || BESIDE.has(key) || BESIDE_UNITS.has(field.unit)) return []
  const figure = `${formatShort(value, 1)} ${field.unit}`
  const words = TELLING.has(field.unit) ? figure : `${lowerCase(field.label)} ${figure}`
  return [{ words, origin: originOf(kind, owner, key) }]
}
