import type { Evaluation } from '../evaluation/evaluate-session'
import type { PlannedSetting } from '../plan/as-change'
import type { Session } from '../session'
import type { Tick } from '../model'
import { headphoneSteps, recallSteps, timingSteps } from './end-steps'
import { phantomSteps, plugSteps, typeSteps } from './plug-steps'
import { Sheet } from './sheet'
import type { Instruction, Step, StepState } from './step'
import { busSteps, loudspeakerSteps, pairSteps, stripSteps } from './strip-steps'
import { downSteps, systemSteps } from './system-steps'

/** Everything that a soundcheck of this session does, in order, as it is set; `planned`: what the planner would set otherwise. */
export function instructions(
  session: Session,
  evaluation: Evaluation,
  planned: readonly PlannedSetting[] = [],
): Instruction[] {
  const sheet = new Sheet(session, evaluation, planned)
  return [
    ...systemSteps(sheet),
    ...downSteps(sheet),
    ...plugSteps(sheet),
    ...typeSteps(sheet),
    ...phantomSteps(sheet),
    ...stripSteps(sheet),
    ...pairSteps(sheet),
    ...busSteps(sheet),
    ...timingSteps(sheet),
    ...headphoneSteps(sheet),
    ...loudspeakerSteps(sheet),
    ...recallSteps(),
  ]
}

/**
 * The run sheet with what was done: a step whose ground has changed since – its own setting, or one that comes before it – is to be
 * done again.
 */
export function runSheet(session: Session, evaluation: Evaluation, planned: readonly PlannedSetting[] = []): Step[] {
  const ticks = new Map((session.soundcheck?.ticks ?? []).map((tick) => [tick.step, tick]))
  return instructions(session, evaluation, planned).map((each) => {
    const tick = ticks.get(each.id)
    // Into the same object: a copy would ask for every caution.
    return Object.assign(each, { state: stateOf(each, tick), at: tick?.at ?? null })
  })
}

function stateOf({ holds }: Instruction, tick: Tick | undefined): StepState {
  if (!tick) return 'open'
  return tick.holds === undefined || tick.holds === holds ? 'done' : 'again'
}

/** A step ticked, or its tick taken back. */
export function withTick(session: Session, step: Pick<Step, 'id' | 'holds'>, at: string | null): Session {
  const others = (session.soundcheck?.ticks ?? []).filter((each) => each.step !== step.id)
  const ticks = at === null ? others : [...others, { step: step.id, at, holds: step.holds }]
  return { ...session, soundcheck: { ...session.soundcheck, ticks } }
}

/** A soundcheck begun anew: what was learnt stays. */
export const withoutTicks = (session: Session): Session => ({
  ...session,
  soundcheck: { ...session.soundcheck, ticks: undefined },
})
