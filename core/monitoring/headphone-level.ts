import type { Dbu, Ohms } from '../units'
import { dbuToVolts } from '../units'

export interface HeadphoneLevel {
  volts: number
  milliwatts: number
  /** dB SPL */
  level: number
}

/**
 * What headphones give from an output: V = U·Zh/(Zh + Zo), P = V²/Zh, SPL = S(dB/mW) + 10 lg P[mW].
 * Example: +10 dBu from 10 Ω into 32 Ω, 98 dB/mW: 1.866 V, 108.8 mW, 118.4 dB SPL: dangerous.
 */
export function headphoneLevel(
  output: Dbu,
  outputImpedance: Ohms,
  headphones: { sensitivity: number; impedance: number },
): HeadphoneLevel {
  const volts = (dbuToVolts(output) * headphones.impedance) / (headphones.impedance + outputImpedance)
  const milliwatts = (1000 * volts * volts) / headphones.impedance
  return { volts, milliwatts, level: headphones.sensitivity + 10 * Math.log10(milliwatts) }
}

/** Sensitivity per volt from that per milliwatt: S(dB/V) = S(dB/mW) + 10 lg(1000/Zh). */
export const perVolt = (sensitivity: number, impedance: number): number =>
  sensitivity + 10 * Math.log10(1000 / impedance)
