import type { CheckFacts } from './check-facts'
import { hissChecks } from './hiss'
import { levelChecks } from './level'
import { dropoutsChecks } from './dropouts'
import { twiceAndLateChecks } from './twice-and-late'
import { sidesChecks } from './sides'
import { silenceChecks } from './silence'
import { pitchChecks } from './pitch'
import { feedbackChecks } from './feedback'
import { humChecks } from './hum'
import { driftChecks } from './drift'
import { toneChecks } from './tone'
import { unitChecks } from './unit'

/**
 * Every check that tells causes apart. They are questions to a hand, an eye or an ear; a recording answers some of them
 * (`recording.ts`). Outcomes that a cause says nothing of are as usual.
 */
export const checks = {
  ...hissChecks,
  ...levelChecks,
  ...dropoutsChecks,
  ...twiceAndLateChecks,
  ...sidesChecks,
  ...silenceChecks,
  ...pitchChecks,
  ...feedbackChecks,
  ...humChecks,
  ...driftChecks,
  ...toneChecks,
  ...unitChecks,
} as const satisfies Record<string, CheckFacts>

export type CheckId = keyof typeof checks
export const checkIds = Object.keys(checks) as CheckId[]
/** What was seen, by check. */
export type Answers = Partial<Record<CheckId, string>>
export const checkOf = (id: CheckId): CheckFacts => checks[id]
