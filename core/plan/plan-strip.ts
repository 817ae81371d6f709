import type { Point } from '../chain/cascade'
import { cascade } from '../chain/cascade'
import { compileStrip } from '../chain/compile'
import { boosterOf, padOf } from '../chain/remedies'
import { resolveStrip } from '../chain/resolve'
import { readingOf, windowError } from '../chain/target-reading'
import { powerSum } from '../numeric/power'
import type { Change, Gear, Session, Strip, TargetReading, TargetWindow } from '../session'
import { formatDecimal } from '../units'
import type { Allocation, Allotment } from './allocate'
import { RESERVE, allocate } from './allocate'

/** One gain as planned, and what decided it. */
export interface PlannedGain {
  stage: string
  setting: 'gain' | 'fader'
  value: number
  reason: string
}

/** What no setting can do: what to put in, and how many decibels it is about. */
export interface Remedy {
  message: string
  decibels: number
  changes: Change[]
}

/** The electronics' noise against the level, for this plan and for the careless one with all gain at the last stage. */
export interface Hiss {
  planned: number
  naive: number
  /** naive − planned, dB: how much quieter the plan's hiss is. */
  lower: number
}

export interface StripPlan {
  strip: string
  gains: PlannedGain[]
  /** `null` with fewer than two gains to share between, or without electronic noise. */
  hiss: Hiss | null
  remedy: Remedy | null
}

/** What a strip's gains are to be, and why. */
export function planStrip(
  session: Session,
  strip: Strip,
  gear: ReadonlyMap<string, Gear>,
  target: TargetWindow,
): StripPlan & { allocation: Allocation } {
  const allocation = allocate(session, strip, gear, target)
  return { strip: strip.id, allocation, ...explain(session, strip, gear, target, allocation) }
}

/** The same for gains that were settled otherwise, as by a stereo partner. */
export function explain(
  session: Session,
  strip: Strip,
  gear: ReadonlyMap<string, Gear>,
  target: TargetWindow,
  allocation: Allocation,
): Omit<StripPlan, 'strip'> {
  const names = new Map(strip.stages.map((stage) => [stage.id, gear.get(stage.gear)?.name ?? '']))
  const end = allocation.points.at(-1)
  return {
    gains: allocation.allotments.map((allotment) => ({
      stage: allotment.control.stage,
      setting: allotment.control.setting,
      value: allotment.value,
      reason: reasonFor(allotment, allocation.points, target, names),
    })),
    hiss: end?.unit === 'dBFS' ? compareHiss(session, strip, gear, target, allocation) : null,
    remedy: end?.unit === 'dBFS' ? remedyFor(session, strip, allocation, end, target, names) : null,
  }
}

const READS: Record<TargetReading, string> = {
  'average': 'The average',
  'peak': 'The loudest rehearsed peak',
  'surge-peak': 'The peak with the surge',
}

function reasonFor(
  { limit }: Allotment,
  points: readonly Point[],
  target: TargetWindow,
  names: ReadonlyMap<string, string>,
): string {
  const end = points.at(-1)
  const reading =
    end?.unit === 'dBFS'
      ? `${READS[target.reads]} then reads ${formatDecimal(readingOf(end, target.reads), 1)} dBFS; the target aims at ${formatDecimal(target.aim, 1)}`
      : 'The strip reaches no recorder'
  switch (limit.by) {
    case 'target':
      return `${reading}, rounded down to the gain’s step.`
    case 'highest':
      return end && end.unit === 'dBFS' && windowError(end, target) >= 0
        ? 'As early as can be: this is its highest gain.'
        : `${reading}, but this is the highest gain of the input.`
    case 'lowest':
      return `${reading}, but this is the lowest gain of the input.`
    case 'locked':
      return 'Locked.'
    case 'zero mark':
      return 'Left where it is: behind the converter no gain betters anything.'
    case 'headroom': {
      const left = points.find((point) => point.stage === limit.stage)?.headroom
      return `As early as headroom allows: ${formatDecimal(left, 1)} dB are left at "${names.get(limit.stage) ?? ''}".`
    }
  }
}

function compareHiss(
  session: Session,
  strip: Strip,
  gear: ReadonlyMap<string, Gear>,
  target: TargetWindow,
  planned: Allocation,
): Hiss | null {
  if (planned.allotments.filter((each) => each.control.domain === 'analogue' && !each.control.locked).length < 2)
    return null
  const naive = allocate(session, strip, gear, target, 'backwards')
  const [own, careless] = [planned, naive].map((each) => hissUnder(session, each, gear, target))
  return own == null || careless == null ? null : { planned: own, naive: careless, lower: careless - own }
}

/** The electronics' noise at the recorder, dB over what the target reads there; the room is no hiss. */
function hissUnder(
  session: Session,
  { strip, points }: Allocation,
  gear: ReadonlyMap<string, Gear>,
  target: TargetWindow,
): number | null {
  const { programme, twoPorts } = compileStrip(resolveStrip(strip, gear), session)
  const level = powerSum(cascade(programme, twoPorts).noise.filter((each) => each.name !== 'room'))
  const end = points.at(-1)
  return level === null || !end ? null : level - readingOf(end, target.reads)
}

/** What to put in where no setting reaches the target, or a stage clips at every setting. */
function remedyFor(
  session: Session,
  strip: Strip,
  { points, allotments }: Allocation,
  end: Point,
  target: TargetWindow,
  names: ReadonlyMap<string, string>,
): Remedy | null {
  const index = (stage: string) => strip.stages.findIndex((each) => each.id === stage)
  const kindOf = (stage: string) =>
    session.gear.find((item) => item.id === strip.stages.find((each) => each.id === stage)?.gear)?.kind
  // A capsule that overloads wants more distance, not a box in its lead.
  const clipped = points
    .slice(0, -1)
    .find(
      (point, i) =>
        i > 0 &&
        point.unit === 'dBu' &&
        point.headroom !== null &&
        point.headroom < 0 &&
        !strip.stages[i]?.driven &&
        kindOf(point.stage) !== 'microphone',
    )
  if (clipped) {
    const loss = withinReach(RESERVE - (clipped.headroom ?? 0))
    return {
      message: `"${names.get(clipped.stage)}" clips at every setting: put a pad of ${loss} dB before it.`,
      decibels: loss,
      changes: [{ do: 'insert', strip: strip.id, index: index(clipped.stage), gear: padOf(session, loss) }],
    }
  }
  const off = windowError(end, target)
  if (off === 0 || allotments.every((each) => each.control.locked)) return null
  const converter = strip.stages.findLast(
    (stage) =>
      session.gear.some((item) => item.id === stage.gear && item.kind === 'interface') &&
      stage.settings.gain !== undefined,
  )
  if (off > 0) {
    const loss = withinReach(off)
    if (!converter) return null
    return {
      message: `Everything fully down is still ${formatDecimal(off, 1)} dB over the window: put a pad of ${loss} dB before "${names.get(converter.id)}".`,
      decibels: loss,
      changes: [{ do: 'insert', strip: strip.id, index: index(converter.id), gear: padOf(session, loss) }],
    }
  }
  const gain = Math.ceil(target.aim - readingOf(end, target.reads))
  const microphone = strip.stages.findIndex((stage) => kindOf(stage.id) === 'microphone')
  if (microphone < 0 || allotments.some(({ limit }) => limit.by === 'headroom')) {
    const held = allotments.find(({ limit }) => limit.by === 'headroom')?.limit
    return held?.by === 'headroom'
      ? {
          message: `${formatDecimal(-off, 1)} dB under the window, because "${names.get(held.stage)}" has no more headroom: take it out, or use a more sensitive input behind it.`,
          decibels: -off,
          changes: [{ do: 'remove', strip: strip.id, stage: held.stage }],
        }
      : null
  }
  return {
    message: `Everything fully up is still ${formatDecimal(-off, 1)} dB under the window: put a booster of ${gain} dB behind the microphone, or go closer.`,
    decibels: gain,
    changes: [{ do: 'insert', strip: strip.id, index: microphone + 1, gear: boosterOf(session, gain) }],
  }
}

/** No pad is larger; what is still too much then wants another source or input. */
const LARGEST_PAD = 100
const withinReach = (loss: number) => Math.min(LARGEST_PAD, Math.ceil(loss))
