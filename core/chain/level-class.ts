import { chainTraits } from './compile/kinds'
import type { ResolvedStage } from '../resolved/resolve'
import type { LevelClass } from './traits'

/** The class of each stage's output; `null` where the signal is not on a wire. */
export function outputClasses(stages: readonly ResolvedStage[]): (LevelClass | null)[] {
  const classes: (LevelClass | null)[] = []
  stages.forEach((stage, i) => classes.push(chainTraits(stage).outputClass(stage, classes[i - 1] ?? null)))
  return classes
}

/** What an input is made for; `null` where it takes anything, or is not on a wire. */
export const inputClass = (stage: ResolvedStage): LevelClass | null => chainTraits(stage).inputClass(stage)

/** A stage that amplifies from microphone level: one in a row is enough. */
export const isPreamp = (stage: ResolvedStage): boolean =>
  stage.kind === 'preamp' || (stage.kind === 'desk-channel' && stage.gear.input === 'mic')
