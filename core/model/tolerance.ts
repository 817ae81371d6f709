import type { Assuming } from './assumed'
import type { NumberField } from './field'
import type { StatedTolerance } from './doubt'
import type { Measurement } from './measurement'
import { spreadOf, standardUncertainty } from './measurement'

/** Where a value is from: measured here, printed by its maker, or assumed: a usual figure, a guess, a length by eye. */
export type ValueOrigin = 'measured' | 'printed' | 'assumed'

/** Where a value is from, as it is said. */
export const originText: Record<ValueOrigin, string> = {
  measured: 'measured',
  printed: 'data sheet',
  assumed: 'assumed',
}

/**
 * Half of the width within which a value may lie, each place in it as likely as the other. `value`: in the value’s own unit;
 * `percent` of it; `decibels` for what is a ratio, whatever its unit; `ratio`: percent as a factor up or down.
 */
export interface Tolerance {
  readonly half: number
  readonly of: 'value' | 'percent' | 'decibels' | 'ratio'
}

const inDb = (half: number): Tolerance => ({ half, of: 'value' })
const percent = (half: number): Tolerance => ({ half, of: 'percent' })
const decibels = (half: number): Tolerance => ({ half, of: 'decibels' })

/** Usual tolerances where a maker gives none (common practice, no source), by the name of the specification. */
const USUAL: Readonly<Record<string, Tolerance>> = {
  level: inDb(5),
  crest: inDb(2),
  surge: inDb(3),
  ambient: inDb(3),
  temperature: inDb(3),
  distance: { half: 10, of: 'ratio' },
  sensitivity: inDb(2),
  digitalSensitivity: inDb(2),
  maxSpl: inDb(1),
  selfNoise: inDb(1),
  ein: inDb(1),
  dynamicRange: inDb(1),
  noise: inDb(1),
  outputNoise: inDb(1),
  fullScale: inDb(0.5),
  maxInput: inDb(0.5),
  maxOutput: inDb(0.5),
  loss: inDb(0.5),
  pad: inDb(0.5),
  gain: inDb(0.5),
  ratio: decibels(0.5),
  maxPower: decibels(0.5),
  volumeLoss: inDb(2),
  volumePot: percent(20),
  volumeAt: percent(10),
  impedance: percent(20),
  inputImpedance: percent(20),
  outputImpedance: percent(20),
  inductance: percent(20),
  latency: percent(10),
  converterIn: percent(10),
  converterOut: percent(10),
  safetyIn: percent(10),
  safetyOut: percent(10),
  fixed: percent(10),
}

/** Of a gain, by how it is set: in steps, against marks of its own knob, by a knob that nobody has measured; a fader by its marks. */
export const GAIN_TOLERANCE = { steps: inDb(0.3), marks: inDb(0.5), knob: inDb(2), fader: inDb(0.5) } as const

/** Anything with figures of which some may be assumed, and tolerances of its own. */
export interface Tolerant extends Assuming {
  readonly tolerance?: Readonly<Record<string, StatedTolerance>> | undefined
  readonly measured?: object | undefined
}

/** The usual tolerance of a specification; `null` for what is known for certain, such as a count or a step. */
export const usualTolerance = (spec: string, { unit }: Pick<NumberField, 'unit'>): Tolerance | null =>
  spec === 'sensitivity' && unit === 'mV/Pa' ? decibels(2) : (USUAL[spec] ?? null)

/** Units of what cannot be negative and is told in dB as well as in its own unit. */
const RATIOS: ReadonlySet<string> = new Set<NumberField['unit']>(['mV/Pa', 'V', 'W', ': 1'])
/** Units of what cannot be negative: so many percent of it mean something. */
const PARTS: ReadonlySet<string> = new Set<NumberField['unit']>([
  'mV/Pa',
  'V',
  'W',
  'Ω',
  'm',
  'ms',
  's',
  'frames',
  'pF/m',
  'H',
  'Hz',
])

/** The unit of a difference between two values: of levels it is dB. */
export const differenceUnit = (unit: string): string => (unit.startsWith('dB') ? 'dB' : unit)

/** The units that a tolerance of a figure can be stated in, its own first. */
export const toleranceUnits = ({ unit }: Pick<NumberField, 'unit'>): readonly string[] => [
  differenceUnit(unit),
  ...(RATIOS.has(unit) ? ['dB'] : []),
  ...(PARTS.has(unit) ? ['%'] : []),
]

/** A tolerance as a file states it; `null` in a unit that the figure has no tolerance in. */
export function readTolerance(stated: StatedTolerance, field: Pick<NumberField, 'unit'>): Tolerance | null {
  const { value: half, unit } =
    typeof stated === 'number' ? { value: stated, unit: differenceUnit(field.unit) } : stated
  if (unit === field.unit || unit === differenceUnit(field.unit)) return { half, of: 'value' }
  if (!toleranceUnits(field).includes(unit)) return null
  return { half, of: unit === '%' ? 'percent' : 'decibels' }
}

/** That of a box: its maker’s, half a width in the value’s unit or in its own, or the usual one. */
export function toleranceOf(owner: Tolerant, spec: string, field: Pick<NumberField, 'unit'>): Tolerance | null {
  const own = owner.tolerance?.[spec]
  return own === undefined ? usualTolerance(spec, field) : readTolerance(own, field)
}

/** What was measured in place of a figure. */
export const measurementOf = (owner: Tolerant, spec: string): Measurement | undefined =>
  (owner.measured as Record<string, Measurement | undefined> | undefined)?.[spec]

/** A tolerance in words, with its unit. */
export function toleranceInWords({ half, of }: Tolerance, { unit }: Pick<NumberField, 'unit'>): string {
  const name = of === 'value' ? differenceUnit(unit) : of === 'decibels' ? 'dB' : '%'
  return `± ${half} ${name}`
}

/** How far off a value may be: of which kind of spread, and its standard uncertainty in that scale. */
export interface InputSpread {
  readonly u: number
  readonly of: Tolerance['of']
  /** Every place as likely as the other, or more likely in the middle. */
  readonly law: 'rectangular' | 'normal'
  /** The least that the value can be, of one that cannot be negative. */
  readonly least?: number
}

/**
 * What a specification may be off by: of a measured one its spread, a quarter of the tolerance where it was measured once (common
 * practice, no source); else its tolerance (GUM, JCGM 100, 4.3.7: a/√3).
 */
export function inputSpread(
  owner: Tolerant,
  spec: string,
  field: Pick<NumberField, 'unit' | 'min'>,
): InputSpread | null {
  const measurement = measurementOf(owner, spec)
  if (!measurement) return spreadFrom(toleranceOf(owner, spec, field), field)
  const spread = spreadOf(measurement)
  if (!spread) return spreadFrom(measuredOnce(toleranceOf(owner, spec, field)), field)
  return {
    u: standardUncertainty(spread),
    of: 'value',
    law: spread.is === 'half-range' ? 'rectangular' : 'normal',
    ...leastOf(field),
  }
}

const measuredOnce = (tolerance: Tolerance | null): Tolerance | null =>
  tolerance && { ...tolerance, half: tolerance.half / 4 }

const leastOf = ({ min }: Pick<NumberField, 'min'>) => (min > 0 ? { least: min } : {})

export const spreadFrom = (tolerance: Tolerance | null, field: Pick<NumberField, 'min'>): InputSpread | null =>
  tolerance && { u: standardOf(tolerance), of: tolerance.of, law: 'rectangular', ...leastOf(field) }

/** In parts for percent; of a factor its logarithm. */
function standardOf({ half, of }: Tolerance): number {
  const width = of === 'percent' ? half / 100 : of === 'ratio' ? Math.log1p(half / 100) : half
  return width / Math.sqrt(3)
}

/** A value moved by so many of its standard uncertainties. Nothing that has to be positive is moved to zero. */
export function moved(value: number, { u, of, least = -Infinity }: InputSpread, z: number): number {
  switch (of) {
    case 'value':
      return Math.max(Math.min(value, least), value + z * u)
    case 'percent':
      return value * Math.max(1e-6, 1 + z * u)
    case 'ratio':
      return value * Math.exp(z * u)
    case 'decibels':
      return value * 10 ** ((z * u) / 20)
  }
}

/** The unit in which the uncertainty of a value is told: its own, or dB for what is a ratio. */
export const unitOfSpread = ({ of }: InputSpread, unit: string): string => (of === 'decibels' ? 'dB' : unit)

/** A standard uncertainty in the value’s own unit, or in dB for a ratio. */
export const inItsUnit = (value: number, { u, of }: InputSpread): number =>
  of === 'percent' || of === 'ratio' ? Math.abs(value) * u : u
