import { gearById } from '../chain/resolve'
import type { Evaluation } from '../evaluation/evaluate-session'
import { evaluateSession } from '../evaluation/evaluate-session'
import type { Gear, Session, SettingName, Strip, TargetWindow } from '../session'
import { applyChanges, targetWindow } from '../session'
import type { Allocation } from './allocate'
import type { StripPlan } from './plan-strip'
import { explain, planStrip } from './plan-strip'

export interface PlannedSetting {
  strip: string
  stage: string
  setting: SettingName
  from: number
  to: number
  reason: string
}

export interface Plan {
  /** Only what changes; empty where everything is as planned. */
  settings: PlannedSetting[]
  /** Every gain of every strip with what decided it, what it saves in hiss, and what no setting can do. */
  strips: StripPlan[]
  /** The session as it would be with them. */
  evaluation: Evaluation
}

/**
 * Settings that put what the target reads at what it aims at: the middle of its window, or −1 dBFS with the surge
 * for the limited stream. Gains are raised as early as headroom allows, rounded down to their steps and held inside
 * their ranges; the reasons say so. Locked gains stay.
 *
 * Planning a planned session changes nothing.
 */
export function planSession(session: Session): Plan {
  const target = targetWindow(session.target)
  const gear = gearById(session)
  const planned = pairedAlike(
    session,
    gear,
    target,
    session.strips.map((strip) => planStrip(session, strip, gear, target)),
  )
  const settings = session.strips.flatMap((strip, i) => changesOf(strip, planned[i]))
  return {
    settings,
    strips: planned.map(({ strip, gains, hiss, remedy }) => ({ strip, gains, hiss, remedy })),
    evaluation: evaluateSession(settings.length === 0 ? session : applyChanges(session, settings)),
  }
}

/** Differences below this are no change. */
const SAME = 1e-6

function changesOf(strip: Strip, plan: StripPlan | undefined): PlannedSetting[] {
  return (plan?.gains ?? []).flatMap(({ stage, setting, value, reason }) => {
    const from = strip.stages.find((each) => each.id === stage)?.settings[setting]
    if (from === undefined || Math.abs(from - value) < SAME) return []
    return [{ strip: strip.id, stage, setting, from, to: value, reason }]
  })
}

type Planned = StripPlan & { allocation: Allocation }

/** The strips of a stereo pair get the same gains: those of the louder one. */
function pairedAlike(
  session: Session,
  gear: ReadonlyMap<string, Gear>,
  target: TargetWindow,
  plans: Planned[],
): Planned[] {
  const all = [...plans]
  for (const { left, right } of session.pairs ?? []) {
    const [l, r] = [left, right].map((id) => all.findIndex((plan) => plan.strip === id))
    const [one, other] = [all[l ?? -1], all[r ?? -1]]
    if (!one || !other || one.gains.length !== other.gains.length) continue
    const lower = one.gains.map((each, i) => Math.min(each.value, other.gains[i]?.value ?? each.value))
    for (const plan of [one, other]) all[all.indexOf(plan)] = withValues(session, gear, target, plan, lower)
  }
  return all
}

function withValues(
  session: Session,
  gear: ReadonlyMap<string, Gear>,
  target: TargetWindow,
  plan: Planned,
  values: readonly number[],
): Planned {
  const strip = session.strips.find((each) => each.id === plan.strip) as Strip
  const allocation = {
    ...plan.allocation,
    allotments: plan.allocation.allotments.map((each, i) => ({ ...each, value: values[i] ?? each.value })),
  }
  return { ...plan, allocation, ...explain(session, strip, gear, target, allocation) }
}
