import { initialSettings } from '../gear'
import { feedFrom, givenBy, takenBy } from '../session/feed-from'
import type { Gear } from '../gear'
import type { Session } from '../session/session'
import type { Settings } from '../model/settings'
import { db } from '../units'
import type { Feed, Stage, Strip } from '../model/strip'
import { feedsOf, isBus } from '../model/strip'

/** A change of what stands in a strip. */
export type StructureChange =
  | { do: 'insert'; strip: string; index: number; gear: Gear; settings?: Settings; port?: string }
  | { do: 'remove'; strip: string; stage: string }
  | { do: 'move'; strip: string; stage: string; to: number }
  | { do: 'replace'; strip: string; stage: string; gear: Gear; port?: string }
  | { do: 'port'; strip: string; stage: string; port: string }
  | FeedChange

/** A send begun, or changed where the strip feeds that bus already. */
export type FeedChange = { do: 'feed'; strip: string; to: string; set: Partial<Omit<Feed, 'to'>> }

export function applyStructure(session: Session, change: StructureChange): Session {
  if (change.do === 'feed') return withFeed(session, change)
  const withGear =
    'gear' in change && !session.gear.some((item) => item.id === change.gear.id)
      ? { ...session, gear: [...session.gear, change.gear] }
      : session
  const changed = {
    ...withGear,
    strips: withGear.strips.map((strip) =>
      strip.id === change.strip ? tappedAgain({ ...strip, stages: restaged(withGear, strip, change) }, strip) : strip,
    ),
  }
  const led = rewired(changed, change.strip)
  return change.do === 'remove' || change.do === 'replace' ? withoutUnusedGear(led, session) : led
}

/**
 * Sends of a strip that no longer gives what their bus takes are taken where it still does; where nowhere, they go over a bus that
 * takes what the strip gives and gives what theirs takes, as a channel without an input of its own does over its group.
 */
const rewired = (session: Session, stripId: string): Session =>
  feedsOf(session.strips.find(({ id }) => id === stripId) ?? {}).reduce((current, feed): Session => {
    const [strip, bus] = [stripId, feed.to].map((wanted) => current.strips.find(({ id }) => id === wanted))
    if (!strip || !bus || strip.stages.length === 0 || givenBy(current, strip, feed) === takenBy(current, bus))
      return current
    const from = feedFrom(current, strip, bus)
    if (from !== null) return withFeed(current, { strip: stripId, to: bus.id, set: { from } })
    for (const via of current.strips) {
      const [into, out] = [feedFrom(current, strip, via), feedFrom(current, via, bus)]
      if (!isBus(via) || into === null || out === null) continue
      const led = withFeed(withoutFeed(current, stripId, bus.id), { strip: stripId, to: via.id, set: { from: into } })
      return withFeed(led, { strip: via.id, to: bus.id, set: { from: out } })
    }
    return current
  }, session)

/** A send at its mark, behind the fader of the strip’s last stage, where nothing else is said. */
function withFeed(session: Session, { strip: id, to, set }: Omit<FeedChange, 'do'>): Session {
  return withStrip(session, id, (strip) => {
    const feeds = feedsOf(strip)
    const known = feeds.some((feed) => feed.to === to)
    const begun: Feed = { to, tap: 'post', gain: db(0), ...set }
    return {
      ...strip,
      feeds: known ? feeds.map((feed) => (feed.to === to ? { ...feed, ...set } : feed)) : [...feeds, begun],
    }
  })
}

/** A strip that no longer feeds a bus. */
export const withoutFeed = (session: Session, stripId: string, to: string): Session =>
  withStrip(session, stripId, ({ feeds, ...strip }) =>
    withFeeds(
      strip,
      (feeds ?? []).filter((feed) => feed.to !== to),
    ),
  )

/** A strip with these feeds and no empty list of them. */
export const withFeeds = <S extends Omit<Strip, 'feeds'>>(
  strip: S,
  feeds: readonly Feed[],
): S & Pick<Strip, 'feeds'> => (feeds.length > 0 ? { ...strip, feeds: [...feeds] } : strip)

const withStrip = (session: Session, id: string, change: (strip: Strip) => Strip): Session => ({
  ...session,
  strips: session.strips.map((strip) => (strip.id === id ? change(strip) : strip)),
})

/** What left behind a stage that is gone leaves behind the one before it. */
function tappedAgain(strip: Strip, before: Strip): Strip {
  if (!strip.feeds) return strip
  const there = new Set(strip.stages.map(({ id }) => id))
  const feeds = strip.feeds.map((feed): Feed => {
    if (feed.from === undefined || there.has(feed.from)) return feed
    const at = before.stages.findIndex(({ id }) => id === feed.from)
    const from = before.stages.slice(0, at).findLast(({ id }) => there.has(id))?.id
    return { ...feed, from }
  })
  return { ...strip, feeds }
}

type StageChange = Exclude<StructureChange, FeedChange>

function restaged(session: Session, strip: Strip, change: StageChange): Stage[] {
  const stages = [...strip.stages]
  if (change.do === 'insert') {
    const stage = {
      id: freeStageId(session, strip.id),
      gear: change.gear.id,
      ...(change.port !== undefined && { port: change.port }),
      settings: { ...initialSettings(change.gear, change.port), ...change.settings },
    }
    stages.splice(change.index, 0, stage)
    return stages
  }
  const at = stages.findIndex((stage) => stage.id === change.stage)
  const stage = stages[at]
  if (!stage) return stages
  switch (change.do) {
    case 'remove':
      stages.splice(at, 1)
      break
    case 'move':
      stages.splice(at, 1)
      stages.splice(Math.max(0, Math.min(stages.length, change.to)), 0, stage)
      break
    case 'replace':
      stages[at] = {
        id: stage.id,
        gear: change.gear.id,
        ...(change.port !== undefined && { port: change.port }),
        settings: initialSettings(change.gear, change.port),
      }
      break
    case 'port': {
      const gear = session.gear.find((item) => item.id === stage.gear)
      if (gear)
        stages[at] = {
          ...stage,
          port: change.port,
          settings: { ...initialSettings(gear, change.port), ...cableOf(stage.settings) },
        }
      break
    }
  }
  return stages
}

const cableOf = ({ cable, capacitance }: Settings): Settings => ({
  ...(cable !== undefined && { cable }),
  ...(capacitance !== undefined && { capacitance }),
})

/** A stage id that nothing in the session bears. */
function freeStageId(session: Session, strip: string): string {
  const taken = new Set(session.strips.flatMap((each) => each.stages.map((stage) => stage.id)))
  for (let n = 1; ; n++) {
    const id = `${strip.slice(0, 50)}-${n}`
    if (!taken.has(id)) return id
  }
}

/** Gear that stood in a strip before a change and stands in none now leaves the session with it. */
function withoutUnusedGear(session: Session, before: Session): Session {
  const used = (each: Session) => new Set(each.strips.flatMap((strip) => strip.stages.map((stage) => stage.gear)))
  const [was, is] = [used(before), used(session)]
  return { ...session, gear: session.gear.filter((item) => is.has(item.id) || !was.has(item.id)) }
}
