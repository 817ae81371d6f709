import type { NumberField } from './field'
import { readTypedNumber } from './typed-number'

export type TypedNumbers = { ok: true; values: number[] } | { ok: false; message: string }

/** Reads a typed list such as "44100, 48000 96000": each number once, in rising order. An empty text is an empty list. */
export function readTypedNumbers(field: NumberField, text: string): TypedNumbers {
  const values = new Set<number>()
  for (const part of text.split(/[\s,;]+/).filter(Boolean)) {
    const read = readTypedNumber(field, part)
    if (!read.ok) return read
    if (read.value !== undefined) values.add(read.value)
  }
  return { ok: true, values: [...values].sort((a, b) => a - b) }
}
