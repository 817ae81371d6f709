import type { KnobTable } from '../gear'
import type { MonotoneCurve } from '../numeric/monotone'
import { monotoneCurve } from '../numeric/monotone'

const curves = new WeakMap<KnobTable, MonotoneCurve>()

/** The curve through the marks of a knob; worked out once for a table, which is replaced, never changed. */
function curveOf(table: KnobTable): MonotoneCurve {
  const curve = curves.get(table) ?? monotoneCurve(table.map(({ position, gain }) => ({ x: position, y: gain })))
  curves.set(table, curve)
  return curve
}

/**
 * The knob position for a gain, in hours on a clock face, on a smooth rising curve through the marks.
 * @returns `null` outside the marked range, or with fewer than two marks.
 */
export const gainToPosition = (table: KnobTable, gain: number): number | null => curveOf(table).inverse(gain)

/** The gain at a knob position; the inverse of the above. */
export const positionToGain = (table: KnobTable, position: number): number | null => curveOf(table).at(position)

const HOURS = [
  'twelve',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
] as const
const hour = (position: number) => HOURS[position % 12] as string

/** A knob position as one says it, to the quarter hour: 10.5 is "half past ten", 12 "twelve o’clock". */
export function positionInWords(position: number): string {
  const quarters = Math.round(position * 4)
  const full = Math.floor(quarters / 4)
  switch (quarters % 4) {
    case 1:
      return `a quarter past ${hour(full)}`
    case 2:
      return `half past ${hour(full)}`
    case 3:
      return `a quarter to ${hour(full + 1)}`
    default:
      return `${hour(full)} o’clock`
  }
}
