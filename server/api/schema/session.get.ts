import { setResponseHeader } from 'h3'
import { sessionJsonSchema } from '#core/session'
import { apiHandler } from '../../utils/api-handler'

export default apiHandler((event) => {
  setResponseHeader(event, 'content-type', 'application/schema+json')
  return sessionJsonSchema()
})
