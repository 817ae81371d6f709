import { getQuery } from 'h3'
import type { MeasuredLoopback } from '../../contract/answer-types'
import { apiHandler } from '../../utils/api-handler'
import { Refusal } from '../../utils/refusal'
import { measureBody } from '../../utils/wav-handler'

/** The lag between two channels of a WAV file: query `reference` and `return`, channel numbers from 1. */
export default apiHandler(async (event): Promise<MeasuredLoopback> => {
  const query = getQuery(event)
  const errors = (['reference', 'return'] as const).flatMap((path) => {
    const channel = Number(query[path])
    return Number.isInteger(channel) && channel >= 1 && channel <= 32
      ? []
      : [
          {
            path,
            code: 'wrong-type',
            message: `Got ${JSON.stringify(query[path] ?? null)}. Give a channel number from 1 to 32.`,
          },
        ]
  })
  if (errors.length > 0)
    throw new Refusal(422, 'Not a valid question', 'Name both channels in the query, as ?reference=1&return=2.', {
      errors,
    })
  const { found, remarks } = await measureBody(event, {
    kind: 'loopback',
    reference: Number(query.reference),
    returned: Number(query.return),
  })
  return { ...found, remarks }
})
