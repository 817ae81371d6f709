import { expose } from 'comlink'
import { planSession } from '#core/plan/plan-session'
import type { Plan } from '#core/plan/plan-session'
import type { Session } from '#core/session'

/** A plan as the page takes it: it evaluates what it applies itself, and taking an evaluation over would hold it up. */
export type PlanForPage = Omit<Plan, 'evaluation'>

/** Plans beside the page: a large session takes a second. */
const work = {
  plan(session: Session): PlanForPage {
    const { settings, strips } = planSession(session)
    return { settings, strips }
  },
}
export type PlanWork = typeof work

expose(work)
