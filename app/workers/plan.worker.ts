import { expose } from 'comlink'
import { planSession } from '#core/plan/plan-session'
import type { Plan } from '#core/plan/plan-session'
import type { Session } from '#core/session'

/** Plans beside the page: a large session takes a second. */
const work = { plan: (session: Session): Plan => planSession(session) }
export type PlanWork = typeof work

expose(work)
