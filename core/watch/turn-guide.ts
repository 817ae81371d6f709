import type { GainControl } from '../chain/gain-control'
import { gainControls, lastControl, stripControls } from '../chain/gain-control'
import { gainInWords } from '../chain/setting-words'
import { nearestGain } from '../chain/settable-gain'
import type { GaugeLevel } from './recent-level'
import { recentLevel } from './recent-level'
import { stagesOf } from '../resolved/resolve-session'
import type { Session } from '../session'
import { formatDecimal } from '../units'
import type { Lane } from './lane'

/** What a hand at a knob has to know, large: where the gain stands, where it is to go, and how far that still is. */
export interface TurnGuide {
  control: GainControl
  /** The gain and its knob position, as set and as wanted. */
  set: string
  wanted: { gain: number; words: string } | null
  /** What comes in now, in the terms of the window, dBFS; `null` while nothing sounds. */
  level: number | null
  state: 'up' | 'down' | 'right' | 'unknown'
  says: string
}

/** Nearer than that to the wanted gain it is set right, dB: what a hand sees of a knob. */
const NEAR = 0.25

/** The gain of a lane that is turned last. */
export function controlOf(session: Session, { strip, stage }: Lane): GainControl | null {
  const found = session.strips.find(({ id }) => id === strip)
  const stages = found ? stagesOf(session, found) : []
  const index = stages.findIndex(({ id }) => id === stage)
  return lastControl(stripControls(stages.slice(0, index + 1)))
}

/**
 * How far a gain still has to be turned. What sounds decides; while nothing does, the gain as it is set against the wanted one.
 * @param wanted the gain that readings or the plan ask for, dB
 * @param columns the last levels of the input, the newest last
 */
export function turnGuide(
  session: Session,
  lane: Lane,
  wanted: number | null,
  columns: readonly GaugeLevel[],
): TurnGuide | null {
  const control = controlOf(session, lane)
  if (!control) return null
  const { window } = lane
  const level = recentLevel(columns, window?.reads === 'average' ? 'average' : 'peak')
  const target = wanted === null ? null : nearestGain(control.range, wanted)
  const shared = {
    control,
    set: gainInWords(control),
    wanted: target === null ? null : { gain: target, words: gainInWords({ ...control, value: target }) },
    level,
  }
  if (level !== null && window) {
    if (level >= window.low && level <= window.high) return { ...shared, state: 'right', says: 'Right: in its window.' }
    return { ...shared, ...toGo(window.aim - level) }
  }
  if (target === null) return { ...shared, state: 'unknown', says: 'Play the loudest passage.' }
  const left = target - control.value
  if (Math.abs(left) < NEAR) return { ...shared, state: 'right', says: 'Set as wanted. Play the loudest passage.' }
  return { ...shared, ...toGo(left) }
}

const toGo = (by: number): Pick<TurnGuide, 'state' | 'says'> => ({
  state: by > 0 ? 'up' : 'down',
  says: `${formatDecimal(Math.max(0.1, Math.abs(by)), Math.abs(by) < 3 ? 1 : 0)} dB to go, ${by > 0 ? 'up' : 'down'}`,
})

/** The strip of which one gain stands otherwise in a draft: the one that is being turned; `null` where that is none or several. */
export function turnedStrip(before: Session, draft: Session): string | null {
  const gains = (session: Session, at: number) => {
    const strip = session.strips[at]
    return strip ? stagesOf(session, strip).flatMap((stage) => gainControls(stage).map(({ value }) => value)) : []
  }
  const turned = draft.strips.filter(
    (strip, at) => strip !== before.strips[at] && gains(before, at).join() !== gains(draft, at).join(),
  )
  return turned.length === 1 ? (turned[0]?.id ?? null) : null
}
