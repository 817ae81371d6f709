import { planSession } from '#core/plan/plan-session'
import { sessionHandler } from '../utils/session-handler'

export default sessionHandler(planSession)
