import type { Db, Hz, Ohms } from '../units'
import { db, hz, ohms } from '../units'
import type { ResolvedStage } from './resolve'

/**
 * What a source of impedance Zs loses into a load Zl, as a gain (not above 0 dB): −20 lg(1 + Zs/Zl).
 * Example: 150 Ω into 1.5 kΩ: −0.83 dB. An unknown impedance on either side loads nothing.
 */
export function loadingGain(source: Ohms | undefined, load: Ohms | undefined): Db {
  return source === undefined || load === undefined ? db(0) : db(-20 * Math.log10(1 + source / load))
}

/**
 * The same at a frequency for a coil, Zs = R + jωL: −20 lg|1 + (R + jωL)/Zl|.
 * Examples: 7 kΩ and 4 H into 20 kΩ: −2.6 dB at 100 Hz, −16.2 dB at 5 kHz; into 1 MΩ −0.06 and −0.13 dB.
 */
export function coilLoading(resistance: Ohms, inductance: number, load: Ohms, frequency: Hz): Db {
  const reactance = 2 * Math.PI * frequency * inductance
  return db(-20 * Math.log10(Math.hypot(1 + resistance / load, reactance / load)))
}

/** Where a coil and its cable's capacitance resonate, 1/(2π√(LC)). Example: 4 H and 500 pF: 3.56 kHz. */
export const coilResonance = (inductance: number, picofarads: number): Hz =>
  hz(1 / (2 * Math.PI * Math.sqrt(inductance * picofarads * 1e-12)))

/** The input impedance of a stage, where it has one. */
export function inputImpedance(stage: ResolvedStage | undefined): Ohms | undefined {
  if (!stage) return undefined
  if (stage.kind === 'interface') return stage.specs.impedance
  return 'specs' in stage && 'inputImpedance' in stage.specs ? stage.specs.inputImpedance : undefined
}

/**
 * The impedance that a stage drives the next one from, where it has one. A DI box without a stated one is a transformer
 * and shows its source's impedance through its turns, Zs/n²: that takes the stage `before` it.
 */
export function outputImpedance(stage: ResolvedStage, before: ResolvedStage | undefined): Ohms | undefined {
  if (stage.kind === 'microphone' || stage.kind === 'electric-source') return stage.specs.impedance
  if (stage.kind === 'di-box' && stage.specs.outputImpedance === undefined) {
    const source = before && outputImpedance(before, undefined)
    return source === undefined ? undefined : ohms(source / stage.specs.ratio ** 2)
  }
  if (stage.kind === 'interface-output') return stage.specs.impedance
  return 'specs' in stage && 'outputImpedance' in stage.specs ? stage.specs.outputImpedance : undefined
}

/** Capacitance of a cable where none is given, pF/m, and its length where none is given, m (common practice, no source). */
export const USUAL_CAPACITANCE = 100
export const USUAL_CABLE = 6

/**
 * Corner frequency of the low-pass that a source impedance makes with a cable's capacitance, f = 1/(2πRC).
 * Example: 250 kΩ and 600 pF: 1.06 kHz.
 */
export const cableCorner = (source: Ohms, picofarads: number): Hz => hz(1 / (2 * Math.PI * source * picofarads * 1e-12))
