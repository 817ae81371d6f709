import { inForce } from '../model'
import { powerDifference } from '../numeric/power'
import type { Dbu, Ohms } from '../units'
import { WHITE_UNDER_A, dbu, ohms, raise, thermalNoiseA } from '../units'

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

/** A measured EIN is A-weighted and of 150 Ω, like everything measured here; the printed one says its own. */
export function withMeasuredEin<S extends object>(owner: { specs: S; measured?: object | undefined }): S {
  const specs = inForce(owner)
  return owner.measured && 'ein' in owner.measured && owner.measured.ein
    ? { ...specs, einWeighting: 'A', einSource: undefined }
    : specs
}
