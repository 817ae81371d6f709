import { WHITE_UNDER_A } from './a-weighting'
import { AUDIO_BAND, BOLTZMANN, NOISE_TEMPERATURE } from './constants'
import { raise, voltsToDbu } from './level'
import type { Dbu, Ohms } from './quantity'
import { volts } from './quantity'

/**
 * Thermal noise of a resistance over 20 Hz–20 kHz at 20 °C, unweighted: U = √(4 k T R B) (Johnson and Nyquist, 1928).
 * Example: 150 Ω: −130.92 dBu.
 */
export function thermalNoise(resistance: Ohms): Dbu {
  const bandwidth = AUDIO_BAND.high - AUDIO_BAND.low
  return voltsToDbu(volts(Math.sqrt(4 * BOLTZMANN * NOISE_TEMPERATURE * resistance * bandwidth)))
}

/** The same, A-weighted. Example: 150 Ω: −132.97 dBu(A). */
export const thermalNoiseA = (resistance: Ohms): Dbu => raise(thermalNoise(resistance), WHITE_UNDER_A)
