import type { Db, Hz, Ohms } from '../units'
import { db, hz } from '../units'

/**
 * What a source of impedance Zs loses into a load Zl, as a gain (not above 0 dB): −20 lg(1 + Zs/Zl).
 * Example: 150 Ω into 1.5 kΩ: −0.83 dB. An unknown impedance on either side loads nothing.
 */
export function loadingGain(source: Ohms | undefined, load: Ohms | undefined): Db {
  return source === undefined || load === undefined ? db(0) : db(-20 * Math.log10(1 + source / load))
}

/** Capacitance of a cable where none is given, pF/m, and its length where none is given, m (common practice, no source). */
export const USUAL_CAPACITANCE = 100
export const USUAL_CABLE = 6

/**
 * Corner frequency of the low-pass that a source impedance makes with a cable's capacitance, f = 1/(2πRC).
 * Example: 250 kΩ and 600 pF: 1.06 kHz.
 */
export const cableCorner = (source: Ohms, picofarads: number): Hz => hz(1 / (2 * Math.PI * source * picofarads * 1e-12))
