import { chainTraits } from '../gear/chains'
import type { ResolvedStage } from '../gear/stage'
import type { LevelClass } from '../gear/chain-traits'

/** The class of each stage's output; `null` where the signal is not on a wire. */
export function outputClasses(stages: readonly ResolvedStage[]): (LevelClass | null)[] {
  const classes: (LevelClass | null)[] = []
  stages.forEach((stage, i) => classes.push(chainTraits(stage).outputClass(stage, classes[i - 1] ?? null)))
  return classes
}

/** What an input is made for; `null` where it takes anything, or is not on a wire. */
export const inputClass = (stage: ResolvedStage): LevelClass | null => chainTraits(stage).inputClass(stage)

/** A stage that amplifies from microphone level: one in a row is enough. */
export const isMicrophoneAmplifier = (stage: ResolvedStage): boolean => chainTraits(stage).liftsMicrophones(stage)
