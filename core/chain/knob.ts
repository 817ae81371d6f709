import type { KnobTable } from '../session'

/**
 * The knob position for a gain, in hours on a clock face, between two marks on the straight line between them.
 * @returns `null` outside the marked range, or with fewer than two marks.
 */
export function gainToPosition(table: KnobTable, gain: number): number | null {
  for (let i = 1; i < table.length; i++) {
    const [low, high] = [table[i - 1], table[i]]
    if (!low || !high || gain < low.gain || gain > high.gain) continue
    if (high.gain === low.gain) return low.position
    return low.position + ((gain - low.gain) / (high.gain - low.gain)) * (high.position - low.position)
  }
  return null
}

const HOURS = ['twelve', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven'] as const
const hour = (position: number) => HOURS[position % 12] as string

/** A knob position as one says it, to the quarter hour: 10.5 is "half past ten", 12 "twelve o’clock". */
export function positionInWords(position: number): string {
  const quarters = Math.round(position * 4)
  const full = Math.floor(quarters / 4)
  switch (quarters % 4) {
    case 1: return `a quarter past ${hour(full)}`
    case 2: return `half past ${hour(full)}`
    case 3: return `a quarter to ${hour(full + 1)}`
    default: return `${hour(full)} o’clock`
  }
}
