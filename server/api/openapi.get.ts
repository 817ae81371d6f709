import { openapi } from '../contract/openapi'
import { apiHandler } from '../utils/api-handler'

export default apiHandler(() => openapi())
