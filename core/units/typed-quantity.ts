import { parseDecimal } from './decimal'
import { dbvToDbu, voltsToDbu } from './level'
import { dbv, volts } from './quantity'

type Convert = (value: number) => number
const times =
  (factor: number): Convert =>
  (value) =>
    value * factor
const same: Convert = (value) => value

/** Decibels are often written without their reference, where the field says which. */
const LEVEL = { 'db': same, 'db(a)': same, 'dba': same }
const BARE_VOLTS = {
  dbv: (value: number) => dbvToDbu(dbv(value)),
  v: (value: number) => voltsToDbu(volts(value)),
  mv: (value: number) => voltsToDbu(volts(value / 1000)),
  µv: (value: number) => voltsToDbu(volts(value / 1e6)),
  uv: (value: number) => voltsToDbu(volts(value / 1e6)),
}
/** Open-circuit sensitivity: dB re 1 V/Pa in mV/Pa. */
const fromDbvPerPascal: Convert = (value) => 1000 * 10 ** (value / 20)

/** For each unit of a field the other ways in which people write such a value, in small letters without spaces. */
const WRITTEN: Readonly<Record<string, Readonly<Record<string, Convert>>>> = {
  'dB': LEVEL,
  'dBu': { ...LEVEL, 'dbu(a)': same, ...BARE_VOLTS },
  'dBu(A)': { ...LEVEL, dbu: same, ...BARE_VOLTS },
  'dBFS': { ...LEVEL, 'dbfs(a)': same },
  'dB SPL': { ...LEVEL, spl: same, pa: (value) => 20 * Math.log10(value / 20e-6) },
  'dBA': { ...LEVEL, 'dbspl': same, 'dbspl(a)': same },
  'dB/mW': { ...LEVEL, 'dbspl/mw': same },
  'mV/Pa': {
    'mv': same,
    'v/pa': times(1000),
    'db': fromDbvPerPascal,
    'dbv': fromDbvPerPascal,
    'dbv/pa': fromDbvPerPascal,
    'dbre1v/pa': fromDbvPerPascal,
  },
  'Ω': {
    ohm: same,
    ohms: same,
    r: same,
    k: times(1e3),
    kω: times(1e3),
    kohm: times(1e3),
    mω: times(1e6),
    m: times(1e6),
  },
  'Hz': { k: times(1e3), khz: times(1e3) },
  'm': { cm: times(0.01), mm: times(0.001), km: times(1000) },
  'ms': { s: times(1000), µs: times(0.001), us: times(0.001) },
  's': { ms: times(0.001), min: times(60) },
  'min': { h: times(60), s: times(1 / 60) },
  'V': { mv: times(0.001) },
  'H': { mh: times(0.001) },
  'pF/m': { 'pf': same, 'nf/m': times(1000) },
  'frames': { samples: same },
  '°C': { '°': same, 'c': same },
  '°': { deg: same, degrees: same },
  ': 1': { ':1': same },
}

/** A value as resistors are marked, the letter in place of the point: 1k5, 4M7, 2R2. */
const MARKED = /^(\d+)([kKmMrR])(\d+)\s*(?:Ω|ohms?)?$/i

/** A number, then whatever letters stand behind it. */
const PARTS = /^([+\-−–]?[\d\s.,]*\d[.,]?)\s*(.*)$/s

/**
 * A typed quantity in the unit of its field; `null` where it is no such quantity, `'ambiguous'` as for `parseDecimal`.
 * Takes other ways of writing the unit: '1.5k' and '1k5' as Ω are 1500, '−10 dBV' as dBu −7.78, '300 mV' as dBu −8.24,
 * '30 cm' as m 0.3.
 */
export function parseQuantity(text: string, unit: string): number | 'ambiguous' | null {
  const [, whole, multiple, fraction] = (unit === 'Ω' && MARKED.exec(text.trim())) || []
  if (whole !== undefined) return parseQuantity(`${whole}.${fraction}${multiple}`, unit)
  const [, digits, written] = PARTS.exec(text.trim()) ?? []
  if (digits === undefined || written === undefined) return null
  const value = parseDecimal(digits)
  if (typeof value !== 'number') return value
  const name = written.replace(/\s/g, '').replace('Ω', 'ω').replace('μ', 'µ').toLowerCase()
  if (name === '' || name === unit.replace(/\s/g, '').replace('Ω', 'ω').toLowerCase()) return value
  const convert = WRITTEN[unit]?.[name]
  const converted = convert?.(value)
  return converted !== undefined && Number.isFinite(converted) ? Math.round(converted * 1e9) / 1e9 : null
}
