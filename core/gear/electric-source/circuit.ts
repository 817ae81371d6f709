import type { Ohms } from '../../units'
import { USUAL_CABLE, USUAL_CAPACITANCE } from '../loading'
import type { Resolved, ResolvedStage } from '../stage'
import type { PickupCircuit } from './pickup'
import { sourceResistance } from './pickup'

/** What an electric source drives its lead from: a pickup through its volume control. */
export function electricImpedance({ gear, specs }: Resolved<'electric-source'>): Ohms | undefined {
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
  next: Pick<ResolvedStage, 'settings'>,
  load: Ohms | undefined,
  inductance: number,
): PickupCircuit | null {
  if (specs.impedance === undefined) return null
  const { cable = USUAL_CABLE, capacitance = USUAL_CAPACITANCE } = next.settings
  return {
    resistance: specs.impedance,
    inductance,
    pot: gear.output === 'passive-pickup' ? potOf(specs) : undefined,
    load,
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
