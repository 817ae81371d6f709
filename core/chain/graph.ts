import type { Feed, Gear, Session, Strip } from '../session'
import { feedsOf, isBus } from '../session'
import type { Contribution, Point } from './cascade'
import { begin, contributions, pass } from './cascade'
import type { Surroundings } from './compile'
import { compileStage, compileStrip } from './compile'
import type { ResolvedStage } from './resolve'
import { resolveStrip } from './resolve'
import type { Origin, Signal } from './signal'
import { copied } from './signal'
import type { Sum } from './sum'
import { meet } from './sum'

/** A strip walked to its end. */
export interface Walked {
  readonly points: Point[]
  readonly noise: Contribution[]
  /** Where strips meet in it; `null` for a channel, and for a bus that nothing feeds. */
  readonly sum: Sum | null
  /** The sounds at its end. */
  readonly origins: readonly Origin[]
  /** What leaves it, in the order of its feeds. */
  readonly leaving: readonly Leaving[]
}
interface Leaving {
  readonly feed: Feed
  readonly signal: Signal
}

/**
 * Walks one strip: a channel from its source, a bus from what arrives there. A bus that nothing feeds has no points: no level
 * is known of it.
 */
export function walkStrip(
  strip: Strip,
  stages: readonly ResolvedStage[],
  surroundings: Surroundings,
  arriving: readonly Signal[],
): Walked {
  const { programme, twoPorts } = compileStrip(strip, stages, surroundings)
  const begun = programme && begin(programme, strip.id)
  const met = begun || arriving.length === 0 ? null : meet(strip.id, arriving)
  const signal = begun?.signal ?? met?.signal
  if (!signal) return { points: [], noise: [], sum: null, origins: [], leaving: [] }
  const points = begun ? [begun.point] : []
  const leaving: Leaving[] = []
  const first = begun ? 1 : 0
  const feeds = feedsOf(strip)
  if (begun) leave(leaving, strip, stages, 0, signal, null, surroundings)
  twoPorts.forEach((twoPort, k) => {
    const before = feeds.length > 0 ? copied(signal, 0) : null
    points.push(pass(signal, twoPort))
    leave(leaving, strip, stages, k + first, signal, before, surroundings)
  })
  return { points, noise: contributions(signal), sum: met?.sum ?? null, origins: signal.origins, leaving }
}

/** Puts down what leaves behind a stage: the signal there, or what it would be before the fader of that stage. */
function leave(
  leaving: Leaving[],
  strip: Strip,
  stages: readonly ResolvedStage[],
  i: number,
  behind: Signal,
  before: Signal | null,
  surroundings: Surroundings,
): void {
  const stage = stages[i] as ResolvedStage
  for (const feed of feedsOf(strip)) {
    if ((feed.from ?? strip.stages.at(-1)?.id) !== stage.id) continue
    const signal = before ? tapped(feed, stages, i, behind, before, surroundings) : behind
    leaving.push({ feed, signal: copied(signal, feed.gain) })
  }
}

function tapped(
  { tap }: Feed,
  stages: readonly ResolvedStage[],
  i: number,
  behind: Signal,
  before: Signal,
  surroundings: Surroundings,
): Signal {
  const stage = stages[i] as ResolvedStage
  if (stage.kind === 'fader' && tap === 'pre') return before
  if (stage.kind !== 'desk-channel' || (stage.settings.tap ?? 'post') === tap) return behind
  const other = copied(before, 0)
  pass(other, compileStage(stages, i, surroundings, { ...stage, settings: { ...stage.settings, tap } }))
  return other
}

/** The strips in such an order that whatever feeds another comes before it. The session was read: there is no circle. */
export function feedOrder(strips: readonly Strip[]): readonly Strip[] {
  if (!strips.some(isBus)) return strips
  const byId = new Map(strips.map((strip) => [strip.id, strip]))
  const ordered = new Set<Strip>()
  const feedersOf = feedersById(strips)
  const visit = (strip: Strip) => {
    if (ordered.has(strip)) return
    for (const id of feedersOf.get(strip.id) ?? []) visit(byId.get(id) as Strip)
    ordered.add(strip)
  }
  strips.forEach(visit)
  return [...ordered]
}

/** Which strips feed each bus. */
export function feedersById(strips: readonly Strip[]): ReadonlyMap<string, readonly string[]> {
  const feeders = new Map<string, string[]>()
  for (const strip of strips)
    for (const { to } of feedsOf(strip)) {
      const known = feeders.get(to)
      if (!known) feeders.set(to, [strip.id])
      else if (!known.includes(strip.id)) known.push(strip.id)
    }
  return feeders
}

/** What has left for each bus so far. */
export class Arrivals {
  private readonly byBus = new Map<string, Signal[]>()

  add({ leaving }: Walked): void {
    for (const { feed, signal } of leaving) {
      const known = this.byBus.get(feed.to)
      if (known) known.push(signal)
      else this.byBus.set(feed.to, [signal])
    }
  }

  at(bus: string): readonly Signal[] {
    return this.byBus.get(bus) ?? NONE
  }
}
const NONE: readonly Signal[] = []

/** What arrives at one strip, as everything that leads to it is set; nothing for a channel. */
export function arrivingAt(session: Session, strip: Strip, gear: ReadonlyMap<string, Gear>): readonly Signal[] {
  if (!isBus(strip)) return NONE
  const feeders = feedersById(session.strips)
  const wanted = new Set<string>([strip.id])
  for (const id of wanted) for (const feeder of feeders.get(id) ?? []) wanted.add(feeder)
  const arrivals = new Arrivals()
  for (const each of feedOrder(session.strips))
    if (each.id !== strip.id && wanted.has(each.id))
      arrivals.add(walkStrip(each, resolveStrip(each, gear), session, arrivals.at(each.id)))
  return arrivals.at(strip.id)
}
