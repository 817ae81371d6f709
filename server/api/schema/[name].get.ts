import { getRouterParam, setResponseHeader } from 'h3'
import { schemaNames, schemaOf } from '../../contract/schemas'
import { apiHandler } from '../../utils/api-handler'
import { Refusal } from '../../utils/refusal'

export default apiHandler((event) => {
  const name = getRouterParam(event, 'name') ?? ''
  const schema = schemaOf(name)
  if (!schema)
    throw new Refusal(
      404,
      'No such schema',
      `There is no schema "${name.slice(0, 100)}". There are ${schemaNames.join(', ')}.`,
    )
  setResponseHeader(event, 'content-type', 'application/schema+json')
  return schema
})
