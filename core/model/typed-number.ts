import { formatShort, parseQuantity } from '../units'
import type { NumberField } from './field'

export type TypedNumber = { ok: true; value: number | undefined } | { ok: false; message: string }

/** Reads what a person typed into a number field; what is refused is told in words, with the range. */
export function readTypedNumber(field: NumberField, text: string): TypedNumber {
  if (text.trim() === '') {
    return field.optional ? { ok: true, value: undefined } : refuse(`${field.label} cannot be empty`, field)
  }
  const value = parseQuantity(text, field.unit)
  const quoted = `“${text.trim().slice(0, 24)}”`
  if (value === 'ambiguous') {
    return refuse(`The comma of ${quoted} could part thousands or decimals: leave it out, or write a point`, field)
  }
  if (value === null) return refuse(`${quoted} is not a number`, field)
  if (field.whole && !Number.isInteger(value)) return refuse(`${formatShort(value, 4)} is not a whole number`, field)
  if (value < field.min || value > field.max) return refuse(`${formatShort(value, 4)} is out of range`, field)
  return { ok: true, value }
}

/** The range of a field as words: "0.01 to 100 m". */
export const rangeInWords = ({ min, max, unit }: NumberField): string =>
  `${formatShort(min, 4)} to ${formatShort(max, 4)} ${unit}`.trimEnd()

const refuse = (what: string, field: NumberField): TypedNumber => ({
  ok: false,
  message: `${what}. Enter ${rangeInWords(field)}.`,
})
