import type { GainControl } from '#core/chain/gain-control'
import type { Change } from '#core/edits'
import type { Feed } from '#core/model'
import type { GainRange, KnobTable } from '#core/gear'
import { stripFields } from '#core/model'
import { db } from '#core/units'

/** Something that is turned in decibels – a gain, a fader, a send –, and what turning it changes. */
export interface Turned {
  /** Tells it from all others: a key held on it is one step of undo. */
  readonly key: string
  /** What a change of it is called in the list of steps. */
  readonly label: string
  readonly value: number
  readonly range: GainRange
  readonly knob?: KnobTable | undefined
  change(to: number): Change[]
}

export const turnedGain = (strip: string, control: GainControl): Turned => ({
  key: `${control.stage} ${control.setting}`,
  label: 'Gain',
  value: control.value,
  range: control.range,
  knob: control.knob,
  change: (to) => [{ strip, stage: control.stage, setting: control.setting, to: db(to) }],
})

/** Below this a send is as good as off; typing goes further down. */
const LOWEST_DRAWN = -60

export const turnedSend = (strip: string, { to: bus, gain }: Feed): Turned => ({
  key: `${strip} to ${bus}`,
  label: 'Send',
  value: gain,
  range: { gainMin: Math.min(LOWEST_DRAWN, gain), gainMax: stripFields.feed.max, gainStep: 0 },
  change: (to) => [{ do: 'feed', strip, to: bus, set: { gain: db(to) } }],
})
