import { believed } from '../uncertainty/belief'
import type { Evaluation } from '../evaluation/evaluate-session'
import { evaluateSession } from '../evaluation/evaluate-session'
import type { Session } from '../session'
import type { Strip } from '../model'
import { applySettings, partnerOf } from '../edits'
import { isBus } from '../model'
import { asChange } from './as-change'
import type { PlannedSetting } from './as-change'
import type { Hiss } from './hiss'
import type { Planned, PlannedGain } from './plan-strip'
import { gainsOf } from './plan-strip'
import { planStrips } from './plan-strips'
import { offTarget } from './reasons'
import type { Remedy } from './remedy'
import { remedyFor } from './remedy'
import { SAME_DB } from '../units'

export type { PlannedSetting }

export interface StripPlan {
  strip: string
  gains: PlannedGain[]
  /** How far the planned level lies outside the target's window, dB: positive over, negative under, 0 inside. */
  off: number
  /** What else has to be said: a locked gain that is the cause, a stereo pair whose ranges do not meet. */
  notes: string[]
  /** `null` with fewer than two gains to share between, or without electronic noise. */
  hiss: Hiss | null
  /** What no setting can do; `null` where the target is reached, or nothing is known that helps. */
  remedy: Remedy | null
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
 * Settings that put what the target reads at what it aims at: the middle of its window, −1 dBFS with the surge for the
 * limited stream, or what the wanted risk leaves. Gains are raised as early as headroom allows, rounded down to their
 * steps and held inside their ranges; the reasons say so. Locked gains stay, and so does the level at a compressor.
 *
 * Planning a planned session changes nothing.
 */
export function planSession(asked: Session): Plan {
  // The plan is for what is believed now, given the readings.
  const session = believed(asked)
  const planned = planStrips(session)
  const settings = session.strips.flatMap((strip, i) => changesOf(strip, planned[i]))
  // A bus is judged with everything before it as planned.
  let set: Session | undefined
  return {
    settings,
    strips: session.strips.map((strip, i) =>
      answerFor(
        isBus(strip) ? (set ??= applySettings(session, settings.map(asChange))) : session,
        strip,
        planned[i] as Planned,
      ),
    ),
    evaluation: evaluateSession(settings.length === 0 ? session : applySettings(session, settings.map(asChange))),
  }
}

function answerFor(session: Session, strip: Strip, { allocation, hiss, notes }: Planned): StripPlan {
  const paired = partnerOf(session, strip.id) !== null
  return {
    strip: strip.id,
    gains: gainsOf(allocation),
    off: offTarget(allocation),
    notes,
    hiss,
    // What one side of a pair misses because of the other is no want of its own chain.
    remedy:
      paired && allocation.allotments.some(({ limit }) => limit.by === 'partner')
        ? null
        : remedyFor(session, strip, allocation),
  }
}

function changesOf(strip: Strip, plan: Planned | undefined): PlannedSetting[] {
  return (plan ? gainsOf(plan.allocation) : []).flatMap(({ stage, setting, value, reason }) => {
    const from = strip.stages.find((each) => each.id === stage)?.settings[setting]
    if (from === undefined || Math.abs(from - value) < SAME_DB) return []
    return [{ strip: strip.id, stage, setting, from, to: value, reason }]
  })
}
