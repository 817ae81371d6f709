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
import { sounds } from './state'

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

/** What is known of a lane beside its levels of now. */
export interface LaneNow {
  /** The gain that the readings ask for, and the planned one, dB. */
  asked: number | null
  planned: number | null
  /** The highest level since the peaks began, in the terms of the window. */
  held: number | null
  /** Something is wrong with it: then no gain is turned. */
  isFaulty: boolean
}

/** A level that much below the one that was held is a quiet passage, not a gain that is too low, dB. */
const QUIETER = 6

/**
 * How far a gain still has to be turned. What sounds decides; while nothing does, the gain as it is set against the planned one. A fault,
 * a pause and a quiet passage ask for nothing to be turned.
 * @param columns the last levels of the input, the newest last
 */
export function turnGuide(
  session: Session,
  lane: Lane,
  { asked, planned, held, isFaulty }: LaneNow,
  columns: readonly GaugeLevel[],
): TurnGuide | null {
  const control = controlOf(session, lane)
  if (!control) return null
  const { window } = lane
  const recent = recentLevel(columns, window?.reads === 'average' ? 'average' : 'peak')
  const level = sounds(lane, recent) ? recent : null
  const wanted = isFaulty ? null : (asked ?? (level === null ? planned : null))
  const target = wanted === null ? null : nearestGain(control.range, wanted)
  const shared = {
    control,
    set: gainInWords(control),
    wanted: target === null ? null : { gain: target, words: gainInWords({ ...control, value: target }) },
    level,
  }
  if (isFaulty) return { ...shared, state: 'unknown', says: 'Turn nothing yet: find the fault.' }
  if (level !== null && window) return { ...shared, ...against(window, level, held ?? level) }
  if (target === null) return { ...shared, state: 'unknown', says: 'Play the loudest passage.' }
  const left = target - control.value
  if (Math.abs(left) < NEAR) return { ...shared, state: 'right', says: 'Set as wanted. Play the loudest passage.' }
  return { ...shared, ...toGo(left) }
}

type Guidance = Pick<TurnGuide, 'state' | 'says'>

function against({ low, high, aim }: NonNullable<Lane['window']>, level: number, held: number): Guidance {
  if (level > high) return toGo(aim - level)
  // It was louder before: with another gain, or another passage.
  if (level >= low)
    return held > high
      ? { state: 'unknown', says: 'In its window now. Restart the peaks to be sure.' }
      : { state: 'right', says: 'Right: in its window.' }
  return level < held - QUIETER
    ? { state: 'unknown', says: 'Quieter than before. Play the loudest passage.' }
    : toGo(aim - level)
}

const toGo = (by: number): Guidance => ({
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
