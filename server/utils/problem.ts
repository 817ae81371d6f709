import type { H3Event } from 'h3'
import { setResponseHeader, setResponseHeaders, setResponseStatus } from 'h3'
import type { Fault } from '#core/files'
import { Gone } from './body'
import { Refusal } from './refusal'

/** RFC 9457 problem details. */
export interface Problem {
  type: string
  title: string
  status: number
  detail: string
  errors: Fault[]
}

/** Answers with a problem; what a caller gets is always this shape, never a stack trace. */
function answerProblem(event: H3Event, { status, title, detail, errors, headers }: Refusal): Problem {
  setResponseStatus(event, status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  setResponseHeaders(event, headers)
  if (!event.node.req.complete) cut(event)
  return { type: 'about:blank', title, status, detail, errors }
}

/** The rest of a body that is not read: the connection ends with the answer, after a moment in which it can be read. */
function cut({ node: { req, res } }: H3Event) {
  res.setHeader('connection', 'close')
  req.unpipe()
  req.resume()
  res.once('finish', () => setTimeout(() => req.destroy(), 500).unref())
}

/** What went wrong, as a problem. What nobody thought of is told without its inside, which the log has. */
export function answerError(event: H3Event, error: unknown): Problem | undefined {
  if (error instanceof Refusal) return answerProblem(event, error)
  if (error instanceof Gone) return undefined
  process.stderr.write(
    `${event.method} ${event.path.slice(0, 200)}: ${error instanceof Error ? error.stack : String(error)}\n`,
  )
  return answerProblem(
    event,
    new Refusal(500, 'Went wrong', 'This request could not be answered; the fault is on this side. Nothing was kept.'),
  )
}
