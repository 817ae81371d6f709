/** Hearing a sound twice, τ apart: notches where the two are in opposition, at odd multiples of 1/(2τ). */
export interface Comb {
  /** Hz; 1 ms: 500, 3 ms: 166.7, 7 ms: 71.4. */
  firstNotch: number
  /** From the lowest dip to the highest peak, dB; `Infinity` for equal levels. */
  ripple: number
}

/** Ratio of field quantities of a level difference, at most 1: which of the two is the louder does not matter. */
const ratio = (difference: number) => 10 ** (-Math.abs(difference) / 20)

/**
 * The comb filter of a delay and a level difference: ripple = 20 lg((1 + a)/(1 − a)).
 * Examples: −6 dB: 9.57 dB, −12 dB: 4.46 dB, −20 dB: 1.74 dB.
 */
export function combOf(delayMs: number, difference: number): Comb {
  const a = ratio(difference)
  return {
    firstNotch: delayMs > 0 ? 500 / delayMs : Infinity,
    ripple: a >= 1 ? Infinity : 20 * Math.log10((1 + a) / (1 - a)),
  }
}

/** Response at a frequency, dB against the louder path alone: 10 lg(1 + a² + 2a·cos 2πfτ). */
export function combResponse(delayMs: number, difference: number, frequency: number): number {
  const a = ratio(difference)
  return 10 * Math.log10(1 + a * a + 2 * a * Math.cos((2 * Math.PI * frequency * delayMs) / 1000))
}
