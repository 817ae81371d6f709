import type { FieldTable, NumberField, Value } from './field'
import { numberSchema } from './field'
import { described, z } from './z'

/** Which statistic a spread is: half the range of the repeats, their standard deviation, a half-width of 95 %. */
export const spreadStatistics = ['half-range', 'sd', 'ci95'] as const
export type SpreadStatistic = (typeof spreadStatistics)[number]

/** How far a measurement may be off, in the unit of its value. A bare number in a file is a half range. */
export interface Spread {
  value: number
  is: SpreadStatistic
}

const size = z.number().check(z.minimum(0), z.maximum(100))
const spread = z.union([size, z.strictObject({ value: size, is: z.enum(spreadStatistics) })])

const measurementShape = {
  on: described('Day of the measurement, YYYY-MM-DD.', z.optional(z.iso.date())),
  method: described('How it was measured.', z.optional(z.string().check(z.maxLength(500)))),
  spread: described(
    'How far it may be off, in the unit of the value; a bare number is half the range of the repeats.',
    z.optional(spread),
  ),
}

/** A value measured here: it wins over the printed one, and both are kept. */
export interface Measurement<V = number> {
  value: V
  on?: string | undefined
  method?: string | undefined
  spread?: number | Spread | undefined
}
export type Measurements<T extends FieldTable> = { -readonly [K in keyof T]?: Measurement<Value<T[K]>> | undefined }

/** The spread of a measurement with its statistic; `null` where none was given. */
export const spreadOf = ({ spread: given }: Pick<Measurement, 'spread'>): Spread | null =>
  given === undefined ? null : typeof given === 'number' ? { value: given, is: 'half-range' } : given

/** A spread with another value, of the statistic that it was; `undefined` without one. */
export const spreadWith = (before: Measurement | undefined, value: number | undefined): Spread | undefined =>
  value === undefined ? undefined : { value, is: (before && spreadOf(before)?.is) ?? 'half-range' }

/**
 * The standard uncertainty that a spread stands for: a half range of equally likely values a/√3, a standard deviation
 * as it is, a half-width of 95 % through 1.96 (GUM, JCGM 100, 4.3).
 */
export function standardUncertainty({ value, is }: Spread): number {
  switch (is) {
    case 'half-range':
      return value / Math.sqrt(3)
    case 'sd':
      return value
    case 'ci95':
      return value / 1.96
  }
}

/** Schema of the `measured` object that stands beside `specs`: any of its fields, each with its provenance. */
export function measurements<const T extends FieldTable>(
  table: T,
): z.ZodMiniType<Measurements<T> | undefined, object | undefined> {
  const shape: Record<string, z.ZodMiniType> = {}
  for (const [key, field] of Object.entries<NumberField>(table)) {
    shape[key] = z.optional(z.strictObject({ value: numberSchema(field), ...measurementShape }))
  }
  return z.optional(z.strictObject(shape)) as unknown as z.ZodMiniType<Measurements<T> | undefined, object | undefined>
}

/** The specifications in force: printed ones, each replaced by the measured one where there is one. */
export function inForce<S extends object>(gear: { specs: S; measured?: object | undefined }): S {
  if (!gear.measured) return gear.specs
  const specs = { ...gear.specs } as Record<string, unknown>
  for (const [key, measurement] of Object.entries(gear.measured as Record<string, Measurement | undefined>)) {
    if (measurement) specs[key] = measurement.value
  }
  return specs as S
}
