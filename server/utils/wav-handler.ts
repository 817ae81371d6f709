import type { EventHandlerRequest, H3Event } from 'h3'
import type { Meter } from '#core/measure/meter'
import type { WavFault } from '#core/measure/wav/format'
import { answerProblem } from './problem'

/** Feeds the body of a request to a meter as it arrives; nothing of it is kept. A fault of the file is a problem of the body. */
export async function measureBody<R extends { ok: true } | { ok: false; fault: WavFault }, T>(
  event: H3Event<EventHandlerRequest>,
  meter: Meter<R>,
  answer: (result: Extract<R, { ok: true }>) => T,
) {
  for await (const chunk of event.node.req as AsyncIterable<Uint8Array>) meter.push(chunk)
  const result = meter.end()
  if (result.ok) return answer(result as Extract<R, { ok: true }>)
  const { code, message } = (result as Extract<R, { ok: false }>).fault
  return answerProblem(event, 422, 'Not a recording that can be measured', message, [{ path: '', code, message }])
}
