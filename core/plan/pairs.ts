import { hasRoom } from '../chain/reserve'
import { settableGain } from '../chain/settable-gain'
import type { GainSetting, Strip } from '../model'
import type { Session } from '../session'
import type { SettingChange } from '../edits'
import { applySettings } from '../edits'
import { db, formatDecimal, SAME_DB } from '../units'
import type { Allocation, Allotment } from './allocate'
import { allocate } from './allocate'
import { hissOf } from './hiss'
import type { Planned } from './plan-strip'
import { offTarget } from './reasons'

type Side = { strip: Strip; plan: Planned }
type GainChange = SettingChange & { setting: GainSetting; to: number }

/**
 * The two strips of a stereo pair get the same gains: those of the louder one, or of the one that is locked. Each keeps
 * its own figures, its own steps and its own range; where they do not meet, it is said.
 */
export function pairedAlike(session: Session, plans: readonly Planned[]): Planned[] {
  const all = [...plans]
  for (const { left, right } of session.pairs ?? []) {
    const [l, r] = [left, right].map((id) => session.strips.findIndex((strip) => strip.id === id)) as [number, number]
    const sides = [l, r].map((i) => ({ strip: session.strips[i] as Strip, plan: all[i] as Planned })) as [Side, Side]
    const [one, other] = alike(session, sides)
    all[l] = one
    all[r] = other
  }
  return all
}

function alike(session: Session, [left, right]: [Side, Side]): [Planned, Planned] {
  const notes: string[] = []
  const changes: [GainChange[], GainChange[]] = [[], []]
  for (const own of left.plan.allocation.allotments) {
    const twin = twinOf(own, left, right)
    if (!twin) {
      notes.push(
        `Only one side has the ${own.control.setting} of “${nameOf(own, left)}”: each side is set by itself there.`,
      )
      continue
    }
    const [a, b] = commonValues(own, twin)
    changes[0].push({ strip: left.strip.id, stage: own.control.stage, setting: own.control.setting, to: a })
    changes[1].push({ strip: right.strip.id, stage: twin.control.stage, setting: twin.control.setting, to: b })
    if (Math.abs(a - b) > SAME_DB) {
      notes.push(
        `The two sides cannot be set alike: ${formatDecimal(a, 1)} dB at “${nameOf(own, left)}”, ${formatDecimal(b, 1)} dB at “${nameOf(twin, right)}”. Make up ${formatDecimal(Math.abs(a - b), 1)} dB behind them.`,
      )
    }
  }
  const set = [settledSide(session, left, changes[0], notes), settledSide(session, right, changes[1], notes)] as [
    Planned,
    Planned,
  ]
  return [keptSafe(left, right, set[0]), keptSafe(right, left, set[1])]
}

/** A side that would clip by following its locked partner stays at its own plan; one that misses its target by it says so. */
function keptSafe({ strip, plan }: Side, partner: Side, followed: Planned): Planned {
  if (!partner.plan.allocation.allotments.some(({ control }) => control.locked)) return followed
  const over = followed.allocation.points.flatMap((point, i) =>
    hasRoom(point) || !hasRoom(plan.allocation.points[i] ?? point)
      ? []
      : [{ point, name: followed.allocation.stages[i]?.gear.name ?? '' }],
  )
  const [first] = over
  if (first) {
    const by = Math.max(-(first.point.headroom ?? 0), -(first.point.surgeHeadroom ?? 0))
    return {
      ...plan,
      notes: [
        ...plan.notes,
        `“${strip.name}” is not set like the locked “${partner.strip.name}”: “${first.name}” would be ${formatDecimal(by, 1)} dB over with the surge. Unlock the other side, or make up the difference behind it.`,
      ],
    }
  }
  const off = offTarget(followed.allocation)
  if (Math.abs(off) <= Math.abs(offTarget(plan.allocation)) + 0.05) return followed
  return {
    ...followed,
    notes: [
      ...followed.notes,
      `“${strip.name}” follows the locked “${partner.strip.name}” and lands ${formatDecimal(Math.abs(off), 1)} dB ${off > 0 ? 'over' : 'under'} the window. Unlock the other side to set both to the target.`,
    ],
  }
}

/**
 * A locked side stays, and the other follows; else the lower gain, that of the louder side. Where the steps of the two do not meet,
 * each has the nearest below.
 */
function commonValues(one: Allotment, other: Allotment): readonly [number, number] {
  const both = (wanted: number) => [settled(one, wanted), settled(other, wanted)] as const
  if (one.control.locked) return both(one.value)
  if (other.control.locked) return both(other.value)
  const [lower, higher] = one.value < other.value ? [one, other] : [other, one]
  // The lower stands at the higher one’s gain already, the closest possible with its steps to it.
  return Math.abs(settled(lower, higher.value) - lower.value) < SAME_DB ? [one.value, other.value] : both(lower.value)
}

const settled = ({ control, value }: Allotment, wanted: number) =>
  control.locked ? db(value) : settableGain(control.range, db(wanted)).gain

/** The same setting of the stage at the same place. */
function twinOf({ control }: Allotment, own: Side, other: Side): Allotment | undefined {
  const at = own.plan.allocation.stages.findIndex((stage) => stage.id === control.stage)
  const stage = other.plan.allocation.stages[at]?.id
  return other.plan.allocation.allotments.find(
    (each) => each.control.stage === stage && each.control.setting === control.setting,
  )
}

const nameOf = ({ control }: Allotment, { plan }: Side) =>
  plan.allocation.stages.find((stage) => stage.id === control.stage)?.gear.name ?? ''

/**
 * A side's plan with the common gains, and its own levels with them. What only this side has is shared out anew around
 * them, as if they were locked; a side that was planned with just these gains keeps its plan.
 */
function settledSide(
  session: Session,
  { strip, plan }: Side,
  changes: readonly GainChange[],
  notes: readonly string[],
): Planned {
  const { allocation } = plan
  if (changes.every((change) => Math.abs(valueIn(allocation, change) - change.to) < SAME_DB))
    return { ...plan, notes: [...plan.notes, ...notes] }
  const moved = applySettings({ ...session, strips: [allocation.strip] }, changes).strips[0] as Strip
  const around = allocate(session, withLocks(moved, changes))
  const allotments = around.allotments.map((each, i): Allotment => {
    const before = allocation.allotments[i] as Allotment
    const isCommon = changes.some((change) => isOf(change, before.control))
    if (!isCommon) return { ...each, control: before.control }
    return Math.abs(each.value - before.value) < SAME_DB
      ? before
      : { ...before, value: each.value, limit: { by: 'partner' } }
  })
  const stages = around.strip.stages.map((stage, i) => ({ ...stage, locked: strip.stages[i]?.locked }))
  const settled: Allocation = { ...around, allotments, strip: { ...around.strip, stages } }
  return { allocation: settled, hiss: hissAgain(session, plan, settled), notes: [...plan.notes, ...notes] }
}

const valueIn = ({ allotments }: Allocation, change: GainChange): number =>
  allotments.find(({ control }) => isOf(change, control))?.value ?? NaN

const isOf = (change: GainChange, { stage, setting }: Allotment['control']) =>
  change.stage === stage && change.setting === setting

const withLocks = (strip: Strip, changes: readonly GainChange[]): Strip => ({
  ...strip,
  stages: strip.stages.map((stage) => ({
    ...stage,
    locked: [
      ...(stage.locked ?? []),
      ...changes.filter((change) => change.stage === stage.id).map(({ setting }) => setting as GainSetting),
    ],
  })),
})

function hissAgain(session: Session, { hiss }: Planned, settled: Allocation) {
  const planned = hissOf(session, settled)
  return hiss && planned !== null ? { ...hiss, planned, lower: Math.max(0, hiss.naive - planned) } : hiss
}
