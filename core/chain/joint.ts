import type { Plug } from '../gear'
import type { Db } from '../units'
import { db } from '../units'
import { chainTraits } from '../gear/chains'
import { loadingGain } from '../gear/loading'
import { inputImpedance, outputImpedance } from './impedance'
import type { ResolvedStage } from '../gear/stage'
import type { TwoPort } from '../gear/two-port'

/** The socket that a stage gives its signal from; unknown where the file does not say. */
export const outPlug = (stage: ResolvedStage): Plug | undefined =>
  'plugs' in stage.gear ? stage.gear.plugs?.out : undefined

/** The socket that a stage takes its signal with. */
export const inPlug = (stage: ResolvedStage): Plug | undefined => chainTraits(stage).inPlug(stage)

/** One of two driven legs is half the voltage, 20 lg 2. */
const ONE_LEG_OF_TWO = db(-20 * Math.log10(2))

/**
 * What an unbalanced input takes of an output that drives both legs: one of them, −6.02 dB. An impedance-balanced output
 * drives one leg only, and a floating one (transformer, moving coil, ribbon, pickup, passive DI box) gives all of its
 * voltage against the grounded leg: both lose nothing.
 */
export const unbalancedGain = (from: ResolvedStage, to: ResolvedStage): Db =>
  outPlug(from)?.balance === 'balanced' && !chainTraits(from).floats(from) && inPlug(to)?.balance === 'one-leg'
    ? ONE_LEG_OF_TWO
    : db(0)

/**
 * The gain (not above 0 dB) of the joint between two neighbours, as far as the stage before does not show it itself.
 * @param before what stands before `from`: a transformer shows its impedance.
 */
export function jointGain(from: ResolvedStage, to: ResolvedStage, before: ResolvedStage | undefined): Db {
  const loading = chainTraits(from).showsLoaded ? 0 : loadingGain(outputImpedance(from, before), inputImpedance(to))
  return db(loading + unbalancedGain(from, to))
}

/** A two-port with a joint before it: the joint's loss belongs to the input, before anything there can clip. */
export function behindJoint(twoPort: TwoPort, joint: Db): TwoPort {
  if (joint === 0) return twoPort
  const { gain, inputCeiling, curve } = twoPort
  return {
    ...twoPort,
    gain: db(gain + joint),
    inputCeiling: inputCeiling === null ? null : ((inputCeiling - joint) as typeof inputCeiling),
    // The curve's thresholds are levels at the input's terminals; the joint's gain is added once, outside.
    ...(curve && { curve: { level: (level: number) => curve.level(level + joint) - joint, fixed: curve.fixed } }),
  }
}
