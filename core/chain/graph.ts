import { portOf } from './setting-words'
import { isDeskChannel, isFader, isMicrophone } from '../gear'
import type { Feed, Strip } from '../model'
import type { Session } from '../session'
import { feedsOf, isBus } from '../model'
import type { Contribution, Point } from './cascade'
import { enterStrip, contributions, applyTwoPort } from './cascade'
import type { Surroundings } from './compile'
import { compileStage, compileStrip } from './compile'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import type { OpenMicrophone, Signal } from './signal'
import { copied, openMicrophone, raiseAll } from './signal'
import type { Sum } from './sum'
import { sumSignals } from './sum'

/** A strip walked to its end. */
export interface StripCascade {
  readonly points: Point[]
  readonly noise: Contribution[]
  /** Where strips meet in it; `null` for a channel, and for a bus that nothing feeds. */
  readonly sum: Sum | null
  /** The microphones that are heard at its end, with the gain from their capsules to there. */
  readonly microphones: readonly OpenMicrophone[]
  /** What leaves it, in the order of its feeds. */
  readonly leaving: readonly Leaving[]
}
interface Leaving {
  readonly feed: Feed
  readonly signal: Signal
}

/** So many decibels less at the input of a stage, as if by an ideal pad there. */
export interface Lowered {
  readonly at: number
  readonly by: number
}

/**
 * PerturbedEvaluations one strip: a channel from its source, a bus from what arrives there. A bus that nothing feeds has no points: no level
 * is known of it.
 */
export function cascadeStrip(
  strip: Strip,
  stages: readonly ResolvedStage[],
  surroundings: Surroundings,
  arriving: readonly Signal[],
  lowered?: Lowered,
): StripCascade {
  const { programme, twoPorts } = compileStrip(strip, stages, surroundings)
  const begun = programme && enterStrip(programme, strip.id, roomDevice(stages))
  const met = begun || arriving.length === 0 ? null : sumSignals(strip, arriving)
  const signal = begun?.signal ?? met?.signal
  if (!signal) return { points: [], noise: [], sum: null, microphones: [], leaving: [] }
  const points = begun ? [begun.point] : []
  const leaving: Leaving[] = []
  const feeds = feedsOf(strip)
  const last = strip.stages.at(-1)?.id
  for (let i = 0; i < stages.length; i++) {
    const stage = stages[i] as ResolvedStage
    const own = feeds.length === 0 ? feeds : feeds.filter(({ from }) => (from ?? last) === stage.id)
    const before = own.some(({ tap }) => isOtherwise(stage, tap)) ? copied(signal, 0) : signal
    const twoPort = twoPorts[begun ? i - 1 : i]
    if (i === lowered?.at) raiseAll(signal, -lowered.by)
    if (isMicrophone(stage)) openMicrophone(signal, stage.gear.id)
    if (twoPort) points.push(applyTwoPort(signal, twoPort, deviceOf(stage)))
    for (const feed of own) {
      const tapped = isOtherwise(stage, feed.tap) ? beforeFader(feed, stages, i, before, surroundings) : signal
      leaving.push({ feed, signal: copied(tapped, feed.gain) })
    }
  }
  return {
    points,
    noise: contributions(signal),
    sum: met?.sum ?? null,
    microphones: signal.microphones.map((each) => ({ ...each, gain: each.gain + signal.openGain })),
    leaving,
  }
}

/** Whose noise a stage’s is: that of a box, or of one of its sockets. */
const deviceOf = (stage: ResolvedStage): string => {
  const port = portOf(stage)
  return port === null ? stage.gear.id : `${stage.gear.id}/${port}`
}

/** The room’s noise is what one microphone hears of it: two microphones hear it unrelated, one on two strips alike. */
const roomDevice = (stages: readonly ResolvedStage[]): string | undefined =>
  isMicrophone(stages[1]) ? stages[1].gear.id : stages[0]?.gear.id

/** Whether a send does not take what the stage itself puts out: the fader of a channel is on its way, or is not. */
export const isOtherwise = (stage: ResolvedStage, tap: Feed['tap']): boolean =>
  isFader(stage) ? tap === 'pre' : isDeskChannel(stage) && (stage.settings.tap ?? 'post') !== tap

/** What a stage would put out with its fader on the other side of the tap. */
function beforeFader(
  { tap }: Feed,
  stages: readonly ResolvedStage[],
  i: number,
  before: Signal,
  surroundings: Surroundings,
): Signal {
  const stage = stages[i] as ResolvedStage
  if (isFader(stage)) return before
  const other = copied(before, 0)
  applyTwoPort(
    other,
    compileStage(stages, i, surroundings, { ...stage, settings: { ...stage.settings, tap } }),
    deviceOf(stage),
  )
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

  add({ leaving }: StripCascade): void {
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
export function arrivingAt(session: Session, strip: Strip): readonly Signal[] {
  if (!isBus(strip)) return NONE
  const feeders = feedersById(session.strips)
  const wanted = new Set<string>([strip.id])
  for (const id of wanted) for (const feeder of feeders.get(id) ?? []) wanted.add(feeder)
  const arrivals = new Arrivals()
  for (const each of feedOrder(session.strips))
    if (each.id !== strip.id && wanted.has(each.id))
      arrivals.add(cascadeStrip(each, stagesOf(session, each), session, arrivals.at(each.id)))
  return arrivals.at(strip.id)
}
