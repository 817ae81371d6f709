import { evaluateSession } from '../evaluation/evaluate-session'
import { planSession } from '../plan/plan-session'
import type { Session } from '../session'
import { propagate } from '../uncertainty/uncertainty'
import { inferReadings } from './infer'
import type { InferredReading } from './inferred'
import { runSheet } from './run-sheet'
import type { Step } from './step'

export interface SoundcheckAnswer {
  steps: Step[]
  readings: InferredReading[]
  /** Steps that are not done, or to be done again. */
  open: number
}

/** A session’s run sheet with what was ticked, and what its readings say. */
export function soundcheckOf(session: Session): SoundcheckAnswer {
  const steps = runSheet(session, evaluateSession(session), planSession(session).settings)
  return {
    steps,
    readings: session.soundcheck?.readings?.length ? inferReadings(propagate(session)) : [],
    open: steps.filter(({ state }) => state !== 'done').length,
  }
}
