import type { Hum } from '../measure/hum'

/** Which of the mains’ multiples lead: itself alone, it with its odd multiples, or its even ones. */
export type HumPattern = 'alone' | 'odd' | 'even'

/** The mains alone leads where it is so much over its multiples, dB (common practice, no source). */
const ALONE = 10

export function humPattern({ lines }: Pick<Hum, 'lines'>): HumPattern {
  const at = (order: number) => lines.find((line) => line.order === order)?.level ?? -Infinity
  const odd = Math.max(at(1), at(3), at(5))
  const even = Math.max(at(2), at(4))
  if (even > odd) return 'even'
  return at(1) > Math.max(at(3), at(5)) + ALONE ? 'alone' : 'odd'
}

/** What the pattern hints at, and what to try (common practice, no source). */
export function humWords(hum: Pick<Hum, 'lines' | 'mains'>): string {
  const { mains } = hum
  switch (humPattern(hum)) {
    case 'even':
      return `${2 * mains} Hz and its multiples lead: ripple of a power supply. Try another supply or battery for each device in turn, and move cables away from supplies.`
    case 'alone':
      return `${mains} Hz alone leads: a magnetic field. Turn or move the microphone, the pickup or the cable away from transformers and supplies, and cross mains cables at right angles.`
    case 'odd':
      return `${mains} Hz and its odd multiples lead: an earth loop, or a field from mains cables. Feed all devices from one socket strip. Take out cables one after the other until it goes. Use balanced cables, or a transformer (DI box) in the line.`
  }
}
