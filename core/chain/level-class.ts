import type { ResolvedStage } from './resolve'

/** How strong an output is, or how strong a signal an input is made for. */
export type LevelClass = 'mic' | 'instrument' | 'line'

/** Loss from which on a pad turns a line into something that a microphone input takes (common practice, no source). */
const LINE_TO_MIC = 15

/** The class of each stage's output; `null` where the signal is not on a wire. */
export function outputClasses(stages: readonly ResolvedStage[]): (LevelClass | null)[] {
  const classes: (LevelClass | null)[] = []
  stages.forEach((stage, i) => classes.push(outputClass(stage, classes[i - 1] ?? null)))
  return classes
}

function outputClass(stage: ResolvedStage, before: LevelClass | null): LevelClass | null {
  switch (stage.kind) {
    case 'microphone':
    case 'di-box':
    case 'booster':
      return 'mic'
    case 'electric-source':
      return stage.gear.output === 'passive-pickup' ? 'instrument' : 'line'
    case 'pad':
      return before === 'line' && stage.specs.loss >= LINE_TO_MIC ? 'mic' : before
    case 'link':
      return stage.gear.medium === 'wireless' ? stage.gear.level : null
    case 'processor':
      return stage.gear.domain === 'analogue' ? 'line' : null
    case 'fader':
      return stage.gear.place === 'desk' ? 'line' : null
    case 'preamp':
    case 'desk-channel':
      return 'line'
    default:
      return null
  }
}

/** What an input is made for; `null` where it takes anything, or is not on a wire. */
export function inputClass(stage: ResolvedStage): LevelClass | null {
  switch (stage.kind) {
    case 'interface':
      return stage.input.type
    case 'preamp':
    case 'booster':
      return 'mic'
    case 'desk-channel':
      return stage.gear.input
    case 'processor':
      return stage.gear.domain === 'analogue' ? 'line' : null
    case 'fader':
      return stage.gear.place === 'desk' ? 'line' : null
    default:
      return null
  }
}

/** A stage that amplifies from microphone level: one in a row is enough. */
export const isPreamp = (stage: ResolvedStage): boolean =>
  stage.kind === 'preamp' || (stage.kind === 'desk-channel' && stage.gear.input === 'mic')
