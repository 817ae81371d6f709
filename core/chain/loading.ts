import type { Db, Ohms } from '../units'
import { db } from '../units'
import type { ResolvedStage } from './resolve'

/**
 * What a source of impedance Zs loses into a load Zl, as a gain (not above 0 dB): −20 lg(1 + Zs/Zl).
 * Example: 150 Ω into 1.5 kΩ: −0.83 dB. An unknown impedance on either side loads nothing.
 */
export function loadingGain(source: Ohms | undefined, load: Ohms | undefined): Db {
  return source === undefined || load === undefined ? db(0) : db(-20 * Math.log10(1 + source / load))
}

/** The input impedance of a stage, where it has one. */
export const inputImpedance = (stage: ResolvedStage | undefined): Ohms | undefined =>
  stage?.kind === 'interface' ? stage.specs.impedance : undefined
