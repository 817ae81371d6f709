import type { GainRange, KnobTable } from '../model'
import type { ResolvedStage } from '../resolved/resolve'

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

function addControls(stage: ResolvedStage, found: GainControl[]) {
  const { gain, fader, tap } = stage.settings
  if (
    gain === undefined ||
    stage.kind === 'digital-input' ||
    stage.kind === 'interface-output' ||
    stage.kind === 'sound-source'
  )
    return
  const { specs } = stage
  const { gainMin = 0, gainMax = gainMin, gainStep = 0 } = specs as Partial<GainRange>
  if (gainMax > gainMin) {
    const knob = stage.kind === 'interface' ? stage.input.knob : 'knob' in stage.gear ? stage.gear.knob : undefined
    found.push(control(stage, 'gain', gain, { gainMin, gainMax, gainStep }, knob))
  }
  // A direct output before the fader does not hear it.
  if (fader !== undefined && 'faderMin' in specs && tap !== 'pre') {
    found.push(
      control(stage, 'fader', fader, { gainMin: specs.faderMin, gainMax: specs.faderMax, gainStep: 0 }, undefined),
    )
  }
}

function control(
  stage: ResolvedStage,
  setting: 'gain' | 'fader',
  value: number,
  range: GainRange,
  knob: KnobTable | undefined,
): GainControl {
  return {
    stage: stage.id,
    setting,
    value,
    range,
    knob,
    locked: stage.locked.includes(setting),
    domain: isDigital(stage) ? 'digital' : 'analogue',
    isFader: setting === 'fader' || stage.kind === 'fader',
    isSystemSlider: stage.kind === 'fader' && stage.gear.place === 'system',
  }
}

/** Whether a gain of this stage is worked in numbers: behind a converter. An interface input's stands before its own. */
const isDigital = (stage: ResolvedStage): boolean =>
  (stage.kind === 'processor' && stage.gear.domain === 'digital') ||
  (stage.kind === 'fader' && stage.gear.place !== 'desk')

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
