import { sessionHandler } from '../utils/session-handler'

export default sessionHandler('diagnose')
