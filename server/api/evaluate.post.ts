import { evaluateSession } from '#core/evaluation/evaluate-session'
import { sessionHandler } from '../utils/session-handler'

export default sessionHandler(evaluateSession)
