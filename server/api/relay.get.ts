import { relaySetting } from '../relay/setting'
import { apiHandler } from '../utils/api-handler'

/** Whether and where a session can be opened on another device. */
export default apiHandler(() => relaySetting())
