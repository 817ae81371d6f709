import type { Change } from '../edits'
import type { Feed, Strip } from '../model'
import type { Session } from '../session'
import { feedsOf, stripFields } from '../model'
import { db } from '../units'

/** The send of a strip into a bus that it feeds. */
export const sendTo = (strip: Strip, bus: string): Feed => feedsOf(strip).find(({ to }) => to === bus) as Feed

/** A send lowered at least that far, to a tenth that can be set. */
export const sendLoweredBy = (strip: Strip, bus: string, by: number): number =>
  Math.floor(10 * (sendTo(strip, bus).gain - by) + 1e-6) / 10

export const lowerSend = (strip: Strip, bus: string, by: number): Change => ({
  do: 'feed',
  strip: strip.id,
  to: bus,
  set: { gain: db(sendLoweredBy(strip, bus, by)) },
})

/** Every send into a bus lowered alike, so that between them nothing changes; empty where one of them cannot be set that low. */
export function lowerSends(session: Session, bus: string, by: number): Change[] {
  const feeders = session.strips.filter((strip) => feedsOf(strip).some(({ to }) => to === bus))
  const changes = feeders.map((strip) => lowerSend(strip, bus, by))
  return changes.every(isWithinRange) ? changes : []
}

export const isWithinRange = (change: Change): boolean =>
  !('do' in change) || change.do !== 'feed' || (change.set.gain ?? 0) >= stripFields.feed.min
