import type { GainRange, KnobTable } from '../gear'
import { isFader } from '../gear'
import { chainTraits } from '../gear/chains'
import type { ResolvedStage } from '../gear/stage'

/** A gain that a hand can turn: a knob, a fader, a slider. */
export interface GainControl {
  readonly stage: string
  readonly setting: 'gain' | 'fader'
  readonly value: number
  readonly range: GainRange
  readonly locked: boolean
  readonly domain: 'analogue' | 'digital'
  /** A fader: it rests at its zero mark, and mixing is done with it. */
  readonly isFader: boolean
  /** The operating system's: a gain that ought to do nothing. */
  readonly isSystemSlider: boolean
  readonly knob?: KnobTable | undefined
}

/** The gains of a stage, in the order in which the signal meets them; those that cannot move are none. */
export const gainControls = (stage: ResolvedStage): GainControl[] => stripControls([stage])

type Ranges = Partial<GainRange> & { readonly faderMin?: number; readonly faderMax?: number }
const rangesOf = (stage: ResolvedStage) => ('specs' in stage ? stage.specs : {}) as Ranges

function addControls(stage: ResolvedStage, found: GainControl[]) {
  const { gain, fader, tap } = stage.settings
  if (gain === undefined) return
  const { gainMin = 0, gainMax = gainMin, gainStep = 0, faderMin, faderMax } = rangesOf(stage)
  if (gainMax > gainMin) {
    const { knob } = chainTraits(stage)
    found.push(control(stage, 'gain', gain, { gainMin, gainMax, gainStep }, knob(stage)))
  }
  // A direct output before the fader does not hear it.
  if (fader !== undefined && faderMin !== undefined && faderMax !== undefined && tap !== 'pre') {
    found.push(control(stage, 'fader', fader, { gainMin: faderMin, gainMax: faderMax, gainStep: 0 }, undefined))
  }
}

function control(
  stage: ResolvedStage,
  setting: 'gain' | 'fader',
  value: number,
  range: GainRange,
  knob: KnobTable | undefined,
): GainControl {
  const { gainIsFader, inNumbers } = chainTraits(stage)
  return {
    stage: stage.id,
    setting,
    value,
    range,
    knob,
    locked: stage.locked.includes(setting),
    domain: inNumbers(stage) ? 'digital' : 'analogue',
    isFader: setting === 'fader' || gainIsFader,
    isSystemSlider: isFader(stage) && stage.gear.place === 'system',
  }
}

/** The gains of a strip, in the order in which the signal meets them. */
export function stripControls(stages: readonly ResolvedStage[]): GainControl[] {
  const found: GainControl[] = []
  for (const stage of stages) addControls(stage, found)
  return found
}

/** Where the operating system’s slider and its like belong: at 0 dB, where they do nothing, as far as their range has it. */
export const restingGain = ({ range }: Pick<GainControl, 'range'>): number =>
  Math.min(range.gainMax, Math.max(range.gainMin, 0))

/** The gain that one turns last: the nearest to the recorder in analogue, or behind the converter where there is no other. */
export function lastControl(controls: readonly GainControl[]): GainControl | null {
  return (
    controls.findLast((each) => each.domain === 'analogue' && !each.locked) ??
    controls.findLast((each) => !each.locked) ??
    controls.at(-1) ??
    null
  )
}
