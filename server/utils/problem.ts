import type { H3Event } from 'h3'
import { setResponseHeader, setResponseStatus } from 'h3'
import type { Fault } from '#core/session'

/** RFC 9457 problem details. */
export interface Problem {
  type: string
  title: string
  status: number
  detail: string
  errors: Fault[]
}

/** Answers with a problem; what a caller gets is always this shape, never a stack trace. */
export function answerProblem(
  event: H3Event,
  status: number,
  title: string,
  detail: string,
  errors: Fault[] = [],
): Problem {
  setResponseStatus(event, status)
  setResponseHeader(event, 'content-type', 'application/problem+json')
  return { type: 'about:blank', title, status, detail, errors }
}
