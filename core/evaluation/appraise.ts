import type { Contribution, Point } from '../chain/cascade'
import { tightest } from '../chain/cascade'
import type { StripView } from '../checks'
import { chainFindings } from '../checks'
import { stripControls } from '../chain/gain-control'
import type { StripCascade } from '../chain/graph'
import { Arrivals, feedOrder, cascadeStrip } from '../chain/graph'
import { outputClasses } from '../chain/level-class'
import type { PhantomUse } from '../chain/phantom'
import { phantomUses, usesOf } from '../chain/phantom'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import type { Signal } from '../chain/signal'
import type { Sum } from '../chain/sum'
import { readingPlace } from '../chain/target-window'
import { windowOf } from '../uncertainty/window'
import { timingFindings } from '../latency/findings'
import type { Route } from '../latency/routes'
import { routes } from '../latency/routes'
import type { Draft } from '../checks/finding'
import type { Session } from '../session'
import type { Strip } from '../model'
import { isBus } from '../model'
import type { Db } from '../units'
import type { Around } from './around'
import { busFindings } from './bus-findings'
import type { Feedback, LoudspeakerBus } from './feedback'
import { feedbackOf, loudspeakerBus } from './feedback'
import { routeInputs } from '../latency/route-inputs'
import type { Steps } from './steps'
import { finished } from './steps'
import type { Stream } from './stream'
import { streamOf } from './stream'
import { unchanged } from './unchanged'

/** A strip as it is set, with everything that is found about it, the fixes not yet tried. */
export interface Appraised {
  id: string
  points: Point[]
  noise: Contribution[]
  /** Where strips meet, on a bus that is fed. */
  sum: Sum | null
  /** On a bus that ends in a loudspeaker and that microphones feed. */
  feedback: Feedback | null
  /** On a bus with a loudness to reach. */
  stream: Stream | null
  drafts: Draft[]
  /** Stages that are overdriven on purpose. */
  driven: ReadonlySet<string>
  tightest: { stage: string; headroom: Db } | null
  latency: Route[]
  walked: StripCascade
}

export interface Appraisal {
  readonly session: Session
  /** Places of the strips, what feeds before what is fed. */
  readonly order: readonly number[]
  readonly strips: readonly Appraised[]
  readonly phantom: readonly PhantomUse[]
}

/**
 * Every level, headroom, noise and delay of a session as it is set, and what is to be seen to.
 * @param before an appraisal of the session as it was: strips that nothing has changed for are taken from it as they are.
 */
export const appraise = (session: Session, before?: Appraisal): Appraisal => finished(appraisal(session, before))

/** The same, pausing after every strip. */
export function* appraisal(session: Session, before?: Appraisal): Steps<Appraisal> {
  const kept = before ? unchanged(before.session, session) : null
  const order = kept && before ? before.order : orderOf(session)
  const phantom = kept && before ? before.phantom : phantomUses(session)
  const strips: Appraised[] = []
  const arrivals = new Arrivals()
  const evaluations = new Map<number, { walked: StripCascade; arriving: readonly Signal[] }>()
  for (const i of order) {
    const strip = session.strips[i] as Strip
    const old = kept?.has(strip.id) ? before?.strips[i] : undefined
    const arriving = arrivals.at(strip.id)
    const walked = old?.walked ?? cascadeStrip(strip, stagesOf(session, strip), session, arriving)
    arrivals.add(walked)
    if (old) strips[i] = old
    else evaluations.set(i, { walked, arriving })
    yield
  }
  // All loudspeakers of the room are known before one of them is judged.
  const room = session.strips.flatMap((strip, i): LoudspeakerBus[] => {
    const found = evaluations.get(i)
    return isBus(strip) && found
      ? listOf(loudspeakerBus(strip.id, stagesOf(session, strip), found.walked.microphones))
      : []
  })
  for (const [i, { walked, arriving }] of evaluations) {
    strips[i] = appraiseStrip({ session, phantom, room }, session.strips[i] as Strip, walked, arriving)
    yield
  }
  return { session, order, phantom, strips }
}

/** Places of the strips in such an order that whatever feeds another comes before it. */
function orderOf({ strips }: Session): readonly number[] {
  const places = new Map(strips.map(({ id }, i) => [id, i]))
  return feedOrder(strips).map(({ id }) => places.get(id) as number)
}

const listOf = <T>(item: T | null): T[] => (item === null ? [] : [item])

/** One strip as it was evaluated, with what arrives there. */
function appraiseStrip(
  { session, phantom, room }: Around,
  strip: Strip,
  walked: StripCascade,
  arriving: readonly Signal[],
): Appraised {
  const { points, noise, sum } = walked
  const stages = stagesOf(session, strip)
  const own = viewFrom(session, strip, phantom, walked)
  if (isBus(strip)) {
    const speaking = room.find(({ bus }) => bus === strip.id)
    const feedback = speaking ? feedbackOf(session, speaking, room) : null
    const stream = streamOf(session, strip, stages, walked, arriving)
    const drafts = [...(points.length > 0 ? chainFindings(own) : []), ...busFindings({ ...own, feedback, stream, sum })]
    return {
      id: strip.id,
      points,
      noise,
      sum,
      feedback,
      stream,
      drafts,
      driven: drivenOf(stages),
      tightest: tightest(points),
      latency: [],
      walked,
    }
  }
  const timing = routeInputs(session, strip, stages)
  const latency = timing ? routes(timing.inputs) : []
  const drafts = chainFindings(own)
  return {
    id: strip.id,
    points,
    noise,
    sum,
    feedback: null,
    stream: null,
    drafts: timing ? [...drafts, ...timingFindings(timing.stage, timing.inputs, latency)] : drafts,
    driven: drivenOf(stages),
    tightest: tightest(points),
    latency,
    walked,
  }
}

const NO_STAGES: ReadonlySet<string> = new Set()
const drivenOf = (stages: readonly ResolvedStage[]): ReadonlySet<string> =>
  stages.some(({ driven }) => driven) ? new Set(stages.flatMap(({ id, driven }) => (driven ? [id] : []))) : NO_STAGES

/** A strip that was walked, as the checks look at it. */
export function viewFrom(
  session: Session,
  strip: Strip,
  phantom: readonly PhantomUse[],
  { points, noise }: StripCascade,
): StripView {
  const stages = stagesOf(session, strip)
  const target = windowOf(session, strip, stages)
  return {
    session,
    strip,
    stages,
    points,
    noise,
    controls: stripControls(stages),
    classes: outputClasses(stages),
    target,
    place: readingPlace(stages, target),
    phantom,
    own: usesOf(phantom, strip.id),
  }
}

/** A strip as the checks look at it. */
export function viewOf(session: Session, stripId: string): StripView | null {
  const strip = session.strips.find((each) => each.id === stripId)
  if (!strip) return null
  const { strips, phantom } = appraise(session)
  const walked = strips.find((each) => each.id === stripId)?.walked as StripCascade
  return viewFrom(session, strip, phantom, walked)
}
