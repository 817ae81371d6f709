import type { Db, Hz, Ohms } from '../../units'
import { db, hz, ohms } from '../../units'

/** A pickup with its volume control, the lead behind it and the input that loads it: one circuit. */
export interface PickupCircuit {
  /** Of the coil, Ω and H; 0 H for what is no coil. */
  readonly resistance: number
  readonly inductance: number
  /** The whole of the volume control, Ω, and where its wiper stands, 0…1. Left out: none, or fully up and counted elsewhere. */
  readonly pot?: { readonly resistance: number; readonly at: number } | undefined
  /** Of the input; left out: it loads nothing. */
  readonly load?: number | undefined
  /** Of the lead, pF. */
  readonly picofarads: number
}

/** What a volume control leaves of a pickup’s voltage with nothing behind it, dB. 8 kΩ, 250 kΩ half down: −6.29 dB. */
export const volumeGain = ({ resistance, pot }: Pick<PickupCircuit, 'resistance' | 'pot'>): Db =>
  db(pot ? 20 * Math.log10((pot.at * pot.resistance) / (pot.resistance + resistance)) : 0)

/**
 * The resistance that a pickup drives its lead from: ((1 − x)·Rp + R) ‖ x·Rp. 8 kΩ, 250 kΩ half down: 64.4 kΩ, which loses 17.4 dB more
 * into 10 kΩ.
 */
export function sourceResistance({ resistance, pot }: Pick<PickupCircuit, 'resistance' | 'pot'>): Ohms {
  if (!pot) return ohms(resistance)
  const [above, below] = [(1 - pot.at) * pot.resistance + resistance, pot.at * pot.resistance]
  return ohms((above * below) / (above + below))
}

/**
 * What arrives at the input of the coil’s own voltage at a frequency, dB:
 * |Zp/(R + jωL + (1 − x)·Rp + Zp)| with 1/Zp = 1/(x·Rp) + 1/R_L + jωC; without a volume control |1/(1 + (R + jωL)(1/R_L + jωC))|
 * (network theory).
 * Examples: 7 kΩ, 4 H, 1 MΩ at 5 kHz: with 2 nF −16.8 dB, with 1.5 nF −13.9, with 0.5 nF 0.0.
 */
export function pickupResponse(circuit: PickupCircuit, frequency: Hz): Db {
  const { resistance, inductance, pot, load, picofarads } = circuit
  const omega = 2 * Math.PI * frequency
  const series = resistance + (pot ? (1 - pot.at) * pot.resistance : 0)
  const conductance = (pot ? 1 / (pot.at * pot.resistance) : 0) + (load === undefined ? 0 : 1 / load)
  const susceptance = omega * picofarads * 1e-12
  const reactance = omega * inductance
  // 1 + (series + j·reactance)·(conductance + j·susceptance)
  const real = 1 + series * conductance - reactance * susceptance
  const imaginary = series * susceptance + reactance * conductance
  return db(-20 * Math.log10(Math.hypot(real, imaginary)))
}

/** Where coil and lead resonate, 1/(2π√(LC)). Examples: 4 H and 500 pF: 3.56 kHz, 2 nF: 1.78 kHz. */
export const coilResonance = (inductance: number, picofarads: number): Hz =>
  hz(1 / (2 * Math.PI * Math.sqrt(inductance * picofarads * 1e-12)))

/** Where levels are those of the fundamentals, and where treble is, Hz. */
const FUNDAMENTALS = hz(100)
export const TREBLE = hz(5000)

/** What a circuit takes of the treble at 5 kHz against the fundamentals, dB; negative where it lifts it. */
export const trebleLoss = (circuit: PickupCircuit): number =>
  pickupResponse(circuit, FUNDAMENTALS) - pickupResponse(circuit, TREBLE)

/** The frequency from which on a circuit takes 3 dB against the fundamentals; `null` where it takes none that is heard. */
export function corner(circuit: PickupCircuit): Hz | null {
  const whole = pickupResponse(circuit, FUNDAMENTALS)
  for (let frequency = 200; frequency <= 20_000; frequency *= 1.02)
    if (whole - pickupResponse(circuit, hz(frequency)) >= 3) return hz(frequency)
  return null
}
