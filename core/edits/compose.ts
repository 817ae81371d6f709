import equal from 'fast-deep-equal'
import type { AudioInterface, Gear } from '../gear'
import { isInterface, initialSettings, socketOf } from '../gear'
import { nextId, nextName } from '../model/naming'
import type { Session } from '../session/session'
import type { Pair, Stage, Strip } from '../model/strip'
import { feedsOf, isBus } from '../model/strip'
import { withFeeds } from './structure-change'

/** Strips with the gear that stands in them, as they are brought into a session from elsewhere. */
export interface Bundle {
  gear: Gear[]
  strips: Strip[]
  pairs?: Pair[] | undefined
}

/** A unit of several inputs is one box for many strips; whatever else stands in a strip is a box of its own. */
export const isUnit = (gear: Gear): boolean => isInterface(gear)

/**
 * Brings strips with their gear into a session under ids and names that are free there. Every strip gets boxes of its own;
 * only a unit that the session has already – by its name and its inputs, measured or not – is that unit, by inputs that are free.
 */
export function addBundle(session: Session, bundle: Bundle): Session {
  const gearIds = new Set(session.gear.map((item) => item.id))
  const gearNames = new Set(session.gear.map((item) => item.name))
  const placed = new Map<string, Gear>()
  const added: Gear[] = []
  for (const item of bundle.gear) {
    const same = session.gear.find(
      (each) => isSameUnit(each, item) && (each === item || hasRoom(session, each, item, bundle)),
    )
    const box = same ?? {
      ...item,
      id: take(nextId(item.id, gearIds), gearIds),
      name: take(nextName(item.name, gearNames), gearNames),
    }
    placed.set(item.id, box)
    if (!same) added.push(box)
  }
  const stripIds = new Set(session.strips.map((strip) => strip.id))
  const stripNames = new Set(session.strips.map((strip) => strip.name))
  const stageIds = new Set(session.strips.flatMap((strip) => strip.stages.map((stage) => stage.id)))
  const boxes = new Map([...session.gear, ...added].map((item) => [item.id, item]))
  const key = ({ gear, port }: Stage) => `${gear} ${socketOf(boxes.get(gear) as Gear, port)}`
  const takenPorts = new Set(session.strips.flatMap((strip) => strip.stages.map(key)))
  const renamed = new Map<string, string>()
  const strips = bundle.strips.map((strip): Strip => {
    const id = take(nextId(strip.id, stripIds), stripIds)
    renamed.set(strip.id, id)
    const stages = strip.stages.map((stage, i): Stage => {
      const box = placed.get(stage.gear)
      const port = box ? freePort(box, stage.port, takenPorts) : stage.port
      const own = {
        ...stage,
        id: take(nextId(stageIds.has(stage.id) ? `${id.slice(0, 50)}-${i + 1}` : stage.id, stageIds), stageIds),
        gear: box?.id ?? stage.gear,
        ...(port !== undefined && { port }),
      }
      takenPorts.add(key(own))
      return { ...own, settings: { ...(box && initialSettings(box, port)), ...stage.settings } }
    })
    const own = new Map(strip.stages.map((stage, i) => [stage.id, stages[i]?.id]))
    return {
      ...strip,
      id,
      name: take(nextName(strip.name, stripNames), stripNames),
      stages,
      feeds: renamedFrom(strip, own),
    }
  })
  const all = new Set([...session.strips, ...strips].map(({ id }) => id))
  const fed = strips.map(({ feeds, ...strip }) =>
    withFeeds(
      strip,
      (feeds ?? []).map((feed) => ({ ...feed, to: renamed.get(feed.to) ?? feed.to })).filter(({ to }) => all.has(to)),
    ),
  )
  const pairs = bundle.pairs?.map((pair) => ({
    ...pair,
    left: renamed.get(pair.left) ?? pair.left,
    right: renamed.get(pair.right) ?? pair.right,
  }))
  return {
    ...session,
    gear: [...session.gear, ...added],
    strips: [...session.strips, ...fed],
    ...(pairs && pairs.length > 0 && { pairs: [...(session.pairs ?? []), ...pairs] }),
  }
}

/** The feeds of a strip whose stages were named anew. */
const renamedFrom = ({ feeds }: Strip, stages: ReadonlyMap<string, string | undefined>) =>
  feeds?.map((feed) => (feed.from === undefined ? feed : { ...feed, from: stages.get(feed.from) }))

/** The same unit may have been measured, or set up, in one of the two. */
function isSameUnit(one: Gear, other: Gear): boolean {
  if (!isInterface(one) || !isInterface(other)) return false
  const inputs = (unit: AudioInterface) => unit.inputs.map(({ id, type }) => ({ id, type }))
  const alike = one.name === other.name || (one.shelf !== undefined && one.shelf === other.shelf)
  return alike && equal(inputs(one), inputs(other))
}

/** Whether a unit of the session has an input free for every strip that comes to it. */
function hasRoom({ strips }: Session, unit: Gear, item: Gear, bundle: Bundle): boolean {
  if (!isInterface(unit)) return true
  const portsOf = (id: string, all: readonly Strip[]) =>
    all.flatMap(({ stages }) => stages.filter((stage) => stage.gear === id).map((stage) => stage.port))
  const taken = new Set(portsOf(unit.id, strips).map((port) => socketOf(unit, port)))
  return portsOf(item.id, bundle.strips).every((wanted) => {
    const type = unit.inputs.find((input) => input.id === wanted)?.type
    const free = unit.inputs.find((input) => input.type === type && !taken.has(socketOf(unit, input.id)))
    if (free) taken.add(socketOf(unit, free.id))
    return free !== undefined
  })
}

function take(value: string, taken: Set<string>): string {
  taken.add(value)
  return value
}

/** The wanted input of a unit, or the next free one of its type where it is taken. */
function freePort(gear: Gear, wanted: string | undefined, taken: ReadonlySet<string>): string | undefined {
  if (!isInterface(gear) || wanted === undefined) return wanted
  const free = (port: string) => !taken.has(`${gear.id} ${socketOf(gear, port)}`)
  if (free(wanted)) return wanted
  const type = gear.inputs.find((input) => input.id === wanted)?.type
  return gear.inputs.find((input) => input.type === type && free(input.id))?.id ?? wanted
}

/** A strip with all its stages once more: with boxes of its own, and free inputs of the same units. */
export function copyStrip(session: Session, stripId: string): Session {
  const strip = session.strips.find((each) => each.id === stripId)
  if (!strip) return session
  const used = new Set(strip.stages.map((stage) => stage.gear))
  return addBundle(session, { gear: session.gear.filter((item) => used.has(item.id)), strips: [strip] })
}

/** The other strips in which a box stands. */
export const alsoIn = (session: Session, gearId: string, stripId: string): Strip[] =>
  session.strips.filter((strip) => strip.id !== stripId && strip.stages.some((stage) => stage.gear === gearId))

/**
 * A stage with a box of its own in place of one that stands in other strips too.
 * @param shared what the others keep: the box as it was before an edit that was meant for this strip only.
 */
export function withOwnBox(session: Session, stripId: string, stageId: string, shared?: Gear): Session {
  const stage = session.strips.find((strip) => strip.id === stripId)?.stages.find((each) => each.id === stageId)
  const box = session.gear.find((item) => item.id === stage?.gear)
  if (!stage || !box) return session
  const others = session.gear.map((item) => (item.id === box.id ? (shared ?? item) : item))
  const own: Gear = {
    ...box,
    id: nextId(box.id, new Set(others.map((item) => item.id))),
    name: nextName(box.name, new Set(others.map((item) => item.name))),
  }
  return {
    ...session,
    gear: [...others, own],
    strips: session.strips.map((strip) =>
      strip.id !== stripId
        ? strip
        : { ...strip, stages: strip.stages.map((each) => (each.id === stageId ? { ...each, gear: own.id } : each)) },
    ),
  }
}

/** What goes with a strip: its own sends, and the sends into it. Names of the other ends. */
export function feedsWith(session: Session, stripId: string): { to: string[]; from: string[] } {
  const names = new Map(session.strips.map(({ id, name }) => [id, name]))
  const own = session.strips.find((strip) => strip.id === stripId)
  return {
    to: own ? [...new Set(feedsOf(own).map(({ to }) => names.get(to) ?? ''))] : [],
    from: session.strips.filter((strip) => feedsOf(strip).some(({ to }) => to === stripId)).map(({ name }) => name),
  }
}

/**
 * A session without a strip, without the gear that only it used, and without its pair; sends into a bus go with the bus. The
 * last strip stays, and so does the last channel.
 */
export function removeStrip(session: Session, stripId: string): Session {
  const strips = session.strips
    .filter((strip) => strip.id !== stripId)
    .map(({ feeds, ...strip }) =>
      withFeeds(
        strip,
        (feeds ?? []).filter((feed) => feed.to !== stripId),
      ),
    )
  if (!strips.some((strip) => !isBus(strip))) return session
  const still = new Set(strips.flatMap((strip) => strip.stages.map((stage) => stage.gear)))
  const gone = new Set(session.strips.find((strip) => strip.id === stripId)?.stages.map((stage) => stage.gear))
  return {
    ...session,
    strips,
    gear: session.gear.filter((item) => still.has(item.id) || !gone.has(item.id)),
    pairs: unpaired(session, stripId),
  }
}

/** Two strips as a stereo pair; each leaves the pair that it was in. */
export function pairStrips(session: Session, left: string, right: string): Session {
  const others = unpaired({ ...session, pairs: unpaired(session, left) }, right) ?? []
  return { ...session, pairs: [...others, { left, right, monitoring: 'panned' }] }
}

/** The pairs without the one that a strip is in. */
export function unpaired(session: Session, stripId: string): Pair[] | undefined {
  const pairs = session.pairs?.filter((pair) => pair.left !== stripId && pair.right !== stripId)
  return pairs && pairs.length > 0 ? pairs : undefined
}
