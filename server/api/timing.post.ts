import { timeSession } from '#core/timing/time-session'
import { sessionHandler } from '../utils/session-handler'

export default sessionHandler(timeSession)
