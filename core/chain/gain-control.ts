import type { GainRange, KnobTable } from '../session'
import { gainRange } from '../session'
import type { ResolvedStage } from './resolve'

/** A gain that a hand can turn: a knob, a fader, a slider. */
export interface GainControl {
  readonly stage: string
  readonly setting: 'gain' | 'fader'
  readonly value: number
  readonly range: GainRange
  readonly locked: boolean
  readonly domain: 'analogue' | 'digital'
  /** The operating system's: a gain that ought to do nothing. */
  readonly isSystemSlider: boolean
  readonly knob?: KnobTable | undefined
}

/** The gains of a stage, in the order in which the signal meets them; those that cannot move are none. */
export function gainControls(stage: ResolvedStage): GainControl[] {
  const port = stage.kind === 'interface' ? stage.input.id : undefined
  const domain = isDigital(stage) ? 'digital' as const : 'analogue' as const
  const isSystemSlider = stage.kind === 'fader' && stage.gear.place === 'system'
  const knob = stage.kind === 'interface' ? stage.input.knob : 'knob' in stage.gear ? stage.gear.knob : undefined
  const found: GainControl[] = []
  for (const setting of ['gain', 'fader'] as const) {
    const range = gainRange(stage.gear, port, setting)
    const value = stage.settings[setting]
    if (!range || value === undefined || range.gainMax <= range.gainMin) continue
    // A direct output before the fader does not hear it.
    if (setting === 'fader' && stage.settings.tap === 'pre') continue
    found.push({ stage: stage.id, setting, value, range, locked: stage.locked.includes(setting), domain, isSystemSlider, ...(setting === 'gain' && { knob }) })
  }
  return found
}

/** Whether a gain of this stage is worked in numbers: behind a converter. An interface input's stands before its own. */
const isDigital = (stage: ResolvedStage): boolean =>
  (stage.kind === 'processor' && stage.gear.domain === 'digital') || (stage.kind === 'fader' && stage.gear.place !== 'desk')

export const stripControls = (stages: readonly ResolvedStage[]): GainControl[] => stages.flatMap(gainControls)

/** The gain that one turns last: the nearest to the recorder in analogue, or behind the converter where there is no other. */
export function lastControl(stages: readonly ResolvedStage[]): GainControl | null {
  const controls = stripControls(stages)
  return controls.findLast((each) => each.domain === 'analogue' && !each.locked)
    ?? controls.findLast((each) => !each.locked)
    ?? controls.at(-1)
    ?? null
}
