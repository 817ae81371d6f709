import { chainTraits } from '../gear/chains'
import type { ResolvedStage } from '../gear/stage'
import type { Ohms } from '../units'

/** The input impedance of a stage, where it has one. */
export const inputImpedance = (stage: ResolvedStage | undefined): Ohms | undefined =>
  stage && chainTraits(stage).inputImpedance(stage)

/** The impedance that a stage drives the next one from, where it has one: a transformer shows that of the stage `before` it. */
export const outputImpedance = (stage: ResolvedStage, before: ResolvedStage | undefined): Ohms | undefined =>
  chainTraits(stage).outputImpedance(stage, before && chainTraits(before).outputImpedance(before, undefined))

/** The resistance of a passive stage, whose thermal noise stands at its output. */
export const thermalResistance = (stage: ResolvedStage): Ohms | undefined =>
  chainTraits(stage).thermalResistance(stage, undefined)
