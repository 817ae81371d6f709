import { powerDifference } from '../numeric/power'
import type { System } from '../session'
import type { Dbfs, Dbu, Ohms } from '../units'
import { WHITE_UNDER_A, db, dbfs, dbu, ohms, raise, thermalNoiseA } from '../units'

/** Source resistance with which equivalent input noise is measured unless a maker says otherwise. */
export const EIN_RESISTANCE = ohms(150)

/** The thermal noise of that resistance, which every EIN contains: −132.97 dBu(A). */
export const EIN_THERMAL = thermalNoiseA(EIN_RESISTANCE)

/** A printed EIN in dBu(A): an unweighted (Z) one by white noise's −2.05 dB. */
export const einWeighted = (ein: Dbu, weighting: 'A' | 'Z'): Dbu =>
  weighting === 'Z' ? raise(ein, WHITE_UNDER_A) : ein

/** An EIN as it is printed or measured. */
export interface EquivalentInputNoise {
  readonly ein: Dbu
  readonly einWeighting: 'A' | 'Z'
  /** Resistor of the measurement, 150 Ω where it is not stated; 0 for a shorted input. */
  readonly einSource?: Ohms | undefined
}

/**
 * What a preamp adds to the noise of whatever is plugged in: the EIN without its own resistor's share, dBu(A).
 * The resistor's noise is weighted like the EIN, so that like is compared with like.
 * Examples: −127 dBu(A) with 150 Ω: −128.27 dBu(A); −131 dBu(A) shorted: −131, and −128.86 with 150 Ω in.
 * @returns `null` for an EIN at or below its resistor's noise: no excess can be told.
 */
export function einExcess({ ein, einWeighting, einSource = EIN_RESISTANCE }: EquivalentInputNoise): Dbu | null {
  const excess = powerDifference(einWeighted(ein, einWeighting), thermalNoiseA(einSource))
  return excess === null ? null : dbu(excess)
}

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
