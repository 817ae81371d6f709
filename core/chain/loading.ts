import type { Db, Hz, Ohms } from '../units'
import { db, hz, ohms } from '../units'
import type { PickupCircuit } from './pickup'
import { sourceResistance } from './pickup'
import type { Resolved, ResolvedStage } from '../resolved/resolve'

/**
 * What a source of impedance Zs loses into a load Zl, as a gain (not above 0 dB): −20 lg(1 + Zs/Zl).
 * Example: 150 Ω into 1.5 kΩ: −0.83 dB. An unknown impedance on either side loads nothing.
 */
export function loadingGain(source: Ohms | undefined, load: Ohms | undefined): Db {
  return source === undefined || load === undefined ? db(0) : db(-20 * Math.log10(1 + source / load))
}

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
  if (stage.kind === 'microphone') return stage.specs.impedance
  if (stage.kind === 'electric-source') return electricImpedance(stage)
  if (stage.kind === 'di-box' && stage.specs.outputImpedance === undefined) {
    const source = before && outputImpedance(before, undefined)
    return source === undefined ? undefined : ohms(source / stage.specs.ratio ** 2)
  }
  if (stage.kind === 'interface-output') return stage.specs.impedance
  return 'specs' in stage && 'outputImpedance' in stage.specs ? stage.specs.outputImpedance : undefined
}

/** What an electric source drives its lead from: a pickup through its volume control. */
function electricImpedance({ gear, specs }: Resolved<'electric-source'>): Ohms | undefined {
  const { impedance } = specs
  return gear.output === 'passive-pickup' && impedance !== undefined
    ? sourceResistance({ resistance: impedance, pot: potOf(specs) })
    : impedance
}

/** The volume control of a pickup, fully up where its position is not given; `undefined` where none is described. */
export const potOf = ({ volumePot, volumeAt = 1 }: Resolved<'electric-source'>['specs']) =>
  volumePot === undefined ? undefined : { resistance: volumePot, at: volumeAt }

/** The circuit of an electric source, the lead behind it and the input that the lead goes into. */
export function circuitOf(
  { gear, specs }: Resolved<'electric-source'>,
  next: ResolvedStage,
  inductance: number,
): PickupCircuit | null {
  if (specs.impedance === undefined) return null
  const { cable = USUAL_CABLE, capacitance = USUAL_CAPACITANCE } = next.settings
  return {
    resistance: specs.impedance,
    inductance,
    pot: gear.output === 'passive-pickup' ? potOf(specs) : undefined,
    load: inputImpedance(next),
    picofarads: cable * capacitance,
  }
}

/** Taken for a coil that states no inductance: the middle of 2 to 5 H (common practice, no source). */
const USUAL_INDUCTANCE = 4
/** Resistances of magnetic pickups (common practice, no source): outside them nothing is assumed of a coil. */
const COIL = { least: 1000, most: 50_000 }

/** The inductance of a pickup, stated or assumed; `null` for what is no coil. */
export function inductanceOf({ gear, specs }: Resolved<'electric-source'>): number | null {
  if (gear.output !== 'passive-pickup') return null
  if (specs.inductance !== undefined) return specs.inductance
  const { impedance } = specs
  return impedance !== undefined && impedance >= COIL.least && impedance <= COIL.most ? USUAL_INDUCTANCE : null
}

/** Capacitance of a cable where none is given, pF/m, and its length where none is given, m (common practice, no source). */
export const USUAL_CAPACITANCE = 100
export const USUAL_CABLE = 6

/**
 * Corner frequency of the low-pass that a source impedance makes with a cable's capacitance, f = 1/(2πRC).
 * Example: 250 kΩ and 600 pF: 1.06 kHz.
 */
export const cableCorner = (source: Ohms, picofarads: number): Hz => hz(1 / (2 * Math.PI * source * picofarads * 1e-12))
