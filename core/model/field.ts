import { described, z } from './z'
import type {
  Celsius,
  Db,
  Dbu,
  Dbfs,
  DbSpl,
  Frames,
  Hz,
  Metres,
  Milliseconds,
  MillivoltsPerPascal,
  Ohms,
  Seconds,
  Volts,
} from '../units'

/** The unit of a field as it is written, and the quantity that it stands for. */
export interface UnitQuantities {
  'dB': Db
  'dBu': Dbu
  'dBu(A)': Dbu
  'dBFS': Dbfs
  'LUFS': number
  'W': number
  'dB SPL': DbSpl
  'dBA': DbSpl
  'mV/Pa': MillivoltsPerPascal
  'Ω': Ohms
  'm': Metres
  '°C': Celsius
  'Hz': Hz
  'frames': Frames
  'ms': Milliseconds
  'buffers': number
  'h': number
  ': 1': number
  'pF/m': number
  'dB/oct': number
  '%': number
  'min': number
  'times': number
  'dB/mW': Db
  'V': Volts
  's': Seconds
  'H': number
  '°': number
  '': number
}
export type UnitSymbol = keyof UnitQuantities

/**
 * A number of the session file: what it is called, its unit and its range.
 * The schema, the form in the interface, its messages and the documentation are all made from this one description.
 */
export interface NumberField {
  readonly label: string
  readonly unit: UnitSymbol
  readonly min: number
  readonly max: number
  /** One sentence for the person who fills it in. */
  readonly help: string
  /** What cannot be told without it; then it is asked for where it is missing. */
  readonly missing?: string
  /** May be left out of the file. */
  readonly optional?: true
  /** Counted, not measured. */
  readonly whole?: true
  /** The value of a file that leaves it out. */
  readonly initial?: number
}
export type FieldTable = Readonly<Record<string, NumberField>>

export type Value<F extends NumberField> = UnitQuantities[F['unit']]
type OptionalKeys<T extends FieldTable> = { [K in keyof T]: T[K] extends { optional: true } ? K : never }[keyof T]
type InitialKeys<T extends FieldTable> = { [K in keyof T]: T[K] extends { initial: number } ? K : never }[keyof T]

/** The values of a table of fields after parsing: complete, but for the optional ones. */
export type Values<T extends FieldTable> = { -readonly [K in Exclude<keyof T, OptionalKeys<T>>]: Value<T[K]> } & {
  -readonly [K in OptionalKeys<T>]?: Value<T[K]> | undefined
}
type Input<T extends FieldTable> = { [K in Exclude<keyof T, OptionalKeys<T> | InitialKeys<T>>]: number } & {
  [K in OptionalKeys<T> | InitialKeys<T>]?: number | undefined
}

/** Declares a table of fields, keeping each field's literal unit and optionality for the types. */
export const fields = <const T extends FieldTable>(table: T): T => table

/** Schema of a field as a plain number. */
export const numberSchema = (field: NumberField) =>
  described(
    `${field.label}, ${field.unit}. ${field.help}`,
    (field.whole ? z.int() : z.number()).check(z.minimum(field.min), z.maximum(field.max)),
  )

/** Schema of one number. The cast puts the unit on: parsing is where a plain number becomes a quantity. */
export const number = <const F extends NumberField>(field: F) =>
  numberSchema(field) as unknown as z.ZodMiniType<Value<F>, number>

/** The same for a field that a file may leave out: its value is then the initial one. */
export const numberOrInitial = <const F extends NumberField & { initial: number }>(field: F) =>
  z._default(numberSchema(field), field.initial) as unknown as z.ZodMiniDefault<z.ZodMiniType<Value<F>, number>>

/** Schema of a whole table; unknown keys are refused. */
export const numbers = <const T extends FieldTable>(table: T) =>
  z.strictObject(tableShape(table)) as unknown as z.ZodMiniType<Values<T>, Input<T>>

/** The same with further keys that are not numbers. */
export const numbersAnd = <const T extends FieldTable, E extends z.core.$ZodShape>(table: T, further: E) =>
  z.strictObject({ ...tableShape(table), ...further }) as unknown as z.ZodMiniType<
    Values<T> & z.output<z.ZodMiniObject<E>>,
    Input<T> & z.input<z.ZodMiniObject<E>>
  >

function tableShape(table: FieldTable): Record<string, z.ZodMiniType> {
  const shape: Record<string, z.ZodMiniType> = {}
  for (const [key, field] of Object.entries(table)) {
    const schema = numberSchema(field)
    shape[key] = field.optional
      ? z.optional(schema)
      : field.initial === undefined
        ? schema
        : z._default(schema, field.initial)
  }
  return shape
}
