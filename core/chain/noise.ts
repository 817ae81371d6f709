import type { System } from '../model'
import type { Dbfs } from '../units'
import { WHITE_UNDER_A, db, dbfs } from '../units'

/** TPDF dither adds its own noise power, twice that of the quantisation: 10 lg 3 dB in all. */
const TPDF_DITHER = db(10 * Math.log10(3))

/** Signal-to-noise ratio of one bit and the constant term for a sine: 20 lg 2 per bit, 10 lg 1.5. */
const PER_BIT = 20 * Math.log10(2)
const SINE_TERM = 10 * Math.log10(1.5)

/**
 * Noise of a file's word length with TPDF dither, A-weighted.
 * −(6.02 N + 1.76) + 4.77 − 2.05: 16 bits −95.37 dBFS, 24 bits −143.53 dBFS.
 * @returns `null` for floating point, whose noise follows the signal far below any converter.
 */
export function wordLengthNoise(bits: System['bitDepth']): Dbfs | null {
  return bits === 32 ? null : dbfs(-(PER_BIT * bits + SINE_TERM) + TPDF_DITHER + WHITE_UNDER_A)
}
