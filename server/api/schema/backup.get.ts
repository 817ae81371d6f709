import { setResponseHeader } from 'h3'
import { backupJsonSchema } from '#core/session'
import { apiHandler } from '../../utils/api-handler'

export default apiHandler((event) => {
  setResponseHeader(event, 'content-type', 'application/schema+json')
  return backupJsonSchema()
})
