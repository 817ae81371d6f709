import type { Session } from '../session'
import type { Strip } from '../model'
import { formatDecimal, SAME_DB } from '../units'
import type { Allocation } from './allocate'
import { allocate } from './allocate'
import type { Hiss } from './hiss'
import { hissOf } from './hiss'
import { offTarget, reasonFor } from './reasons'

/** One gain as planned, and what decided it. */
export interface PlannedGain {
  stage: string
  setting: 'gain' | 'fader'
  value: number
  reason: string
}

/** A strip's plan before its remedies were tried. */
export interface Planned {
  allocation: Allocation
  hiss: Hiss | null
  notes: string[]
}

/**
 * What a strip's gains are to be. Where the careless way – all gain at the last stage – happens to be audibly the
 * quieter one, as it can be around curves and coarse steps, that is the plan.
 */
export function planStrip(session: Session, strip: Strip): Planned {
  const forwards = allocate(session, strip)
  const { allocation, hiss } = quieter(session, strip, forwards)
  return { allocation, hiss, notes: lockedCause(session, strip, allocation) }
}

/** Nobody hears less hiss than that; for less the gain is not made late, dB (common practice, no source). */
const AUDIBLE = 0.1

function quieter(session: Session, strip: Strip, forwards: Allocation): Pick<Planned, 'allocation' | 'hiss'> {
  const shared = forwards.allotments.filter((each) => each.control.domain === 'analogue' && !each.control.locked)
  if (!forwards.place || shared.length < 2) return { allocation: forwards, hiss: null }
  const backwards = allocate(session, strip, 'backwards')
  const [planned, naive] = [forwards, backwards].map((each) => hissOf(session, each))
  if (planned == null || naive == null) return { allocation: forwards, hiss: null }
  const better = naive < planned - AUDIBLE && Math.abs(offTarget(backwards)) <= Math.abs(offTarget(forwards)) + SAME_DB
  return better
    ? { allocation: backwards, hiss: { planned: naive, naive, lower: 0 } }
    : { allocation: forwards, hiss: { planned, naive, lower: Math.max(0, naive - planned) } }
}

/** Where the target is missed and would be reached without a lock, the lock is named as the cause. */
function lockedCause(session: Session, strip: Strip, planned: Allocation): string[] {
  if (offTarget(planned) === 0 || planned.allotments.every((each) => !each.control.locked)) return []
  const unlocked = { ...strip, stages: strip.stages.map((stage) => ({ ...stage, locked: undefined })) }
  const free = allocate(session, unlocked)
  if (Math.abs(offTarget(free)) >= Math.abs(offTarget(planned))) return []
  const moved = planned.allotments
    .map((each, i) => ({ ...each, by: Math.abs((free.allotments[i]?.value ?? each.value) - each.value) }))
    .filter((each) => each.control.locked && each.by > SAME_DB)
    .sort((a, b) => b.by - a.by)[0]
  const name = planned.stages.find((stage) => stage.id === moved?.control.stage)?.gear.name
  if (!moved || name === undefined) return []
  return [
    `The ${moved.control.setting} of “${name}” is locked at ${formatDecimal(moved.value, 1)} dB, and that is why the target is missed: unlock it.`,
  ]
}

/** A plan in the words of an answer. */
export const gainsOf = (allocation: Allocation): PlannedGain[] =>
  allocation.allotments.map((allotment) => ({
    stage: allotment.control.stage,
    setting: allotment.control.setting,
    value: allotment.value,
    reason: reasonFor(allotment, allocation),
  }))
