import { lastControl, stripControls } from '../chain/gain-control'
import type { GainControl } from '../chain/gain-control'
import { stagesOf } from '../resolved/resolve-session'
import { nearestGain } from '../chain/settable-gain'
import { ofStrip } from '../evaluation/alone'
import { evaluateSession } from '../evaluation/evaluate-session'
import type { Change } from '../edits'
import type { Session } from '../session'
import type { Strip } from '../model'
import { applyChanges } from '../edits'
import { feedsOf, stripFields } from '../model'
import { db } from '../units'

/** Strips of a bus that cannot be brought to the others' loudness, and why. */
export interface Equalised {
  changes: Change[]
  left: string[]
}

/** A gain before a compressor moves the level by less than itself: it is corrected that many times. */
const ROUNDS = 4
const AS_LOUD = 0.05

/**
 * Every strip of a bus as loud there as the quietest: nothing gets louder by it, so that nothing clips by it. By fader the gains
 * stay – a strip without a fader is set by its send –, by gain the faders do.
 */
export function equalise(session: Session, bus: string, by: 'fader' | 'gain'): Equalised {
  const brought = ofStrip(evaluateSession(session), bus)?.sum?.brought ?? []
  const quietest = Math.min(...brought.map(({ average }) => average))
  const changes = new Map<string, Change>()
  let now = session
  for (let round = 0; round < ROUNDS; round++) {
    for (const { strip: id, average } of ofStrip(evaluateSession(now), bus)?.sum?.brought ?? []) {
      const strip = now.strips.find((each) => each.id === id)
      const change = strip && average - quietest > AS_LOUD ? quieter(now, strip, bus, by, average - quietest) : null
      if (change) changes.set(id, change)
    }
    now = applyChanges(session, [...changes.values()])
  }
  const after = ofStrip(evaluateSession(now), bus)?.sum?.brought ?? []
  const left = after.filter(({ average }) => average - quietest > 1)
  return {
    changes: [...changes.values()],
    left: left.map(({ strip: id }) => session.strips.find((each) => each.id === id)?.name ?? ''),
  }
}

function quieter(session: Session, strip: Strip, bus: string, by: 'fader' | 'gain', less: number): Change | null {
  const controls = stripControls(stagesOf(session, strip))
  if (by === 'gain') {
    const gain = lastControl(controls.filter((each) => !each.isFader))
    return gain && !gain.locked ? turned(strip, gain, less) : null
  }
  const feed = feedsOf(strip).find(({ to }) => to === bus)
  const fader =
    feed?.tap === 'post' ? controls.findLast((each) => each.isFader && !each.locked && !each.isSystemSlider) : undefined
  if (fader) return turned(strip, fader, less)
  if (!feed) return null
  const gain = Math.max(stripFields.feed.min, Math.round(10 * (feed.gain - less)) / 10)
  return { do: 'feed', strip: strip.id, to: bus, set: { gain: db(gain) } }
}

const turned = (strip: Strip, { stage, setting, range, value }: GainControl, less: number): Change => ({
  strip: strip.id,
  stage,
  setting,
  to: nearestGain(range, value - less),
})
