import { isMicrophone } from '../gear'
import { viewOf } from '../evaluation/appraise'
import { evaluateSession } from '../evaluation/evaluate-session'
import { closerFix, inlinePreampFix } from '../checks/more-level'
import { lowerSends } from '../checks/sends'
import { padOf } from '../checks/remedies'
import type { ResolvedStage } from '../gear/stage'
import { aimError, windowError } from '../chain/target-window'
import type { Change } from '../edits'
import type { Session } from '../session'
import type { Strip } from '../model'
import { applyChanges, partnerOf } from '../edits'
import { isBus } from '../model'
import { formatDecimal, lowerCase } from '../units'
import type { Allocation } from './allocate'
import { allocate } from './allocate'
import { planStrips } from './plan-strips'
import { offTarget } from './reasons'
import { RESERVE } from '../chain/reserve'

/** What no setting can do: what to do instead, and how many decibels it is about. */
export interface Remedy {
  message: string
  decibels: number
  /** The remedy as changes, tried; empty where it takes a hand. */
  changes: Change[]
}

/** No usual pad is larger (common practice, no source). */
const LARGEST_PAD = 40

/**
 * What to do where no setting reaches the target, or a stage clips at every setting. A remedy is applied and planned before
 * it is offered, and kept only if then the target is reached, nothing clips, and nothing of severity stop is new.
 */
export function remedyFor(session: Session, strip: Strip, allocation: Allocation): Remedy | null {
  const { place, points, stages } = allocation
  const clipped = points.findIndex((point, i) => i > 0 && i !== place?.index && isOverdriven(stages[i], point))
  const off = offTarget(allocation)
  if (!place || (clipped < 0 && off === 0)) return null
  const worse = clipped >= 0 ? clipped : place.index
  const candidates = isBus(strip)
    ? lessFromSends(session, strip, allocation, worse)
    : clipped >= 0 || off > 0
      ? lessLevel(session, strip, allocation, worse)
      : moreLevel(session, strip, allocation)
  const words = clipped >= 0 ? clipWords(allocation, clipped) : missWords(allocation, off)
  const holding = candidates.find((each) => keeps(session, strip, allocation, each.changes))
  return holding
    ? { message: `${words}: ${holding.message}`, decibels: holding.decibels, changes: holding.changes }
    : { message: `${words}. ${byHand(allocation, clipped >= 0 || off > 0)}`, decibels: Math.abs(off), changes: [] }
}

/** A capsule that overloads wants more distance, not a box in its cable. */
const isOverdriven = (
  stage: ResolvedStage | undefined,
  { unit, headroom }: { unit: string; headroom: number | null },
) => stage !== undefined && !isMicrophone(stage) && !stage.driven && unit === 'dBu' && headroom !== null && headroom < 0

/** A remedy keeps its word: planned with it, the target is reached, nothing clips, the surge keeps its room, and no stop is new. */
function keeps(session: Session, strip: Strip, before: Allocation, changes: Change[]): boolean {
  const changed = applyChanges(session, changes)
  const own = changed.strips.find((each) => each.id === strip.id)
  if (!own) return false
  const planned = settled(changed, own)
  if (offTarget(planned) !== 0) return false
  if (planned.points.some((point, i) => isOverdriven(planned.stages[i], point))) return false
  if (losesSurge(before, planned)) return false
  const stops = (each: Session) =>
    evaluateSession(each).strips.flatMap((one) =>
      one.findings.filter(({ severity }) => severity === 'stop').map(({ code, stage }) => `${code} ${stage}`),
    )
  const known = new Set(stops(session))
  const set = { ...changed, strips: changed.strips.map((each) => (each.id === strip.id ? planned.strip : each)) }
  return stops(set).every((each) => known.has(each))
}

/** Whether the surge has less room than none somewhere, and less than it had there. */
function losesSurge(before: Allocation, after: Allocation): boolean {
  const room = new Map(before.points.map(({ stage, surgeHeadroom }) => [stage, surgeHeadroom]))
  return after.points.some(({ stage, surgeHeadroom }, i) => {
    if (surgeHeadroom === null || surgeHeadroom >= 0 || after.stages[i]?.driven) return false
    const was = room.get(stage)
    return was == null || surgeHeadroom < was - 0.05
  })
}

/** What the plan would make of a changed strip, with the other side where it is one of a pair. */
function settled(session: Session, strip: Strip): Allocation {
  if (partnerOf(session, strip.id) === null) return allocate(session, strip)
  const at = session.strips.indexOf(strip)
  return planStrips(session)[at]?.allocation ?? allocate(session, strip)
}

interface Candidate {
  message: string
  decibels: number
  changes: Change[]
}

/** A bus is brought down where it is fed. */
function lessFromSends(session: Session, bus: Strip, { points, place, window }: Allocation, at: number): Candidate[] {
  const point = points[at]
  if (!point) return []
  const over = at === place?.index ? windowError(point, place, window) : RESERVE.peak - (point.headroom ?? RESERVE.peak)
  const least = Math.max(1, Math.ceil(over))
  return [least, least + 1, least + 3].flatMap((by) => {
    const changes = lowerSends(session, bus.id, by)
    return changes.length === 0
      ? []
      : [{ message: `bring all ${changes.length} sends into it down by ${by} dB.`, decibels: by, changes }]
  })
}

/** The stage's own pad first, then one in the line before it. */
function lessLevel(
  session: Session,
  strip: Strip,
  { points, stages, place, window }: Allocation,
  at: number,
): Candidate[] {
  const stage = stages[at]
  const before = stages[at - 1]
  if (!stage || !before || !place) return []
  const own = ownPad(stage)
  const tight = points[at]?.headroom ?? 0
  const point = points[place.index]
  const over = at === place.index ? (point ? windowError(point, place, window) : 0) : RESERVE.peak - tight
  const inserted = (loss: number): Candidate => ({
    message: `put a pad of ${loss} dB before “${stage.gear.name}”.`,
    decibels: loss,
    changes: [{ do: 'insert', strip: strip.id, index: at, gear: padOf(session, loss, before, stage) }],
  })
  const least = Math.max(1, Math.ceil(over))
  // The pad's own impedances change the joint: a little more is tried where the first falls short.
  const losses = [least, least + 1, least + 3, least + 6].filter((loss) => loss <= LARGEST_PAD)
  const analogueBefore = points[at - 1]?.unit === 'dBu'
  return [
    ...(own && !own.in
      ? [
          {
            message: `put the pad of ${formatDecimal(own.loss, 0)} dB of “${stage.gear.name}” in.`,
            decibels: own.loss,
            changes: [{ strip: strip.id, stage: stage.id, setting: 'pad' as const, to: true }],
          },
        ]
      : []),
    ...(analogueBefore ? losses.map(inserted) : []),
  ]
}

function moreLevel(session: Session, strip: Strip, allocation: Allocation): Candidate[] {
  const { stages, place, points, window } = allocation
  const point = place && points[place.index]
  if (!point) return []
  const short = -aimError(point, place, window)
  const set: Session = {
    ...session,
    strips: session.strips.map((each) => (each.id === strip.id ? allocation.strip : each)),
  }
  const view = viewOf(set, strip.id)
  const padsOut = stages.flatMap((stage): Candidate[] => {
    const own = ownPad(stage)
    if (!own?.in) return []
    const changes: Change[] = [{ strip: strip.id, stage: stage.id, setting: 'pad', to: false }]
    return [{ message: `take the pad of “${stage.gear.name}” out.`, decibels: own.loss, changes }]
  })
  const fixes = view ? [...closerFix(view, short), ...inlinePreampFix(view, short, (changes) => changes)] : []
  return [
    ...padsOut,
    ...fixes.map(({ action, changes }) => ({ message: lowerCase(action), decibels: Math.ceil(short), changes })),
  ]
}

/** The switchable pad of a stage. */
function ownPad(stage: ResolvedStage): { loss: number; in: boolean } | null {
  if (!('specs' in stage) || !('pad' in stage.specs) || stage.specs.pad <= 0) return null
  return { loss: stage.specs.pad, in: stage.settings.pad ?? false }
}

const clipWords = ({ stages }: Allocation, at: number) => `“${stages[at]?.gear.name}” clips at every setting`

/** What stops the gains, and by how much the window is missed. */
function missWords({ allotments, stages }: Allocation, off: number): string {
  const by = `${formatDecimal(Math.abs(off), 1)} dB ${off > 0 ? 'over' : 'under'} the window`
  const full = allotments.find(({ limit }) => limit.by === 'headroom')?.limit
  if (off < 0 && full?.by === 'headroom') {
    return `It stays ${by}, because “${stages.find((stage) => stage.id === full.stage)?.gear.name}” has no more headroom`
  }
  const moved = allotments.filter(({ limit }) => limit.by === 'highest' || limit.by === 'lowest')
  if (moved.length === 0) return `It stays ${by}`
  return off > 0
    ? `With its gains at their minimum it is still ${by}`
    : `With its gains at their maximum it is still ${by}`
}

/** What takes a hand, by what it is that stops the gains. */
function byHand(allocation: Allocation, tooMuch: boolean): string {
  const { allotments, stages, points, place, strip } = allocation
  const name = (stage: string) => stages.find((each) => each.id === stage)?.gear.name ?? ''
  if (isBus(strip)) return 'Bring its own fader or its sends down.'
  const held = allotments.find(({ limit }) => limit.by === 'held' || limit.by === 'into')?.limit
  const full = allotments.find(({ limit }) => limit.by === 'headroom')?.limit
  if (full?.by === 'headroom') {
    const at = points.findIndex(({ stage }) => stage === full.stage)
    const missing = formatDecimal(Math.ceil(10 * Math.abs(offTarget(allocation)) - 1e-6) / 10, 1)
    if (points[at]?.unit === 'dBFS' && place !== null && at > place.index)
      return `Turn “${name(full.stage)}” down by at least ${missing} dB: it would clip before the target is reached.`
    if (place !== null && at < place.index && !tooMuch)
      return `Use an input that is at least ${missing} dB more sensitive behind “${name(full.stage)}”.`
    if (place !== null && at < place.index) return `Use a less sensitive input behind “${name(full.stage)}”.`
    return tooMuch
      ? 'Turn the source down, go further away, or use a less sensitive input.'
      : `Choose a target that aims at least ${missing} dB lower.`
  }
  if (held?.by === 'held' || held?.by === 'into')
    return `Turn the output or the make-up of “${name(held.stage)}” ${tooMuch ? 'down' : 'up'}, or use a ${tooMuch ? 'less' : 'more'} sensitive input behind it.`
  return tooMuch
    ? 'Turn the source down, go further away, or use a less sensitive input.'
    : 'Turn the source up, or use an input with more gain.'
}
