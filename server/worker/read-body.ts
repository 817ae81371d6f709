import type { Fault } from '#core/files'
import type { Session } from '#core/session'
import { describeReceived, faultsUnder, readSession } from '#core/files'

interface Refused {
  ok: false
  faults: Fault[]
}
export const refuse = (...faults: Fault[]): Refused => ({ ok: false, faults })

/** A body that holds a session and what is asked of it; faults of the session stand under `session`. */
export function readBody(
  text: string,
  wanted: string,
): { ok: true; asked: Record<string, unknown>; session: Session } | Refused {
  let body: unknown
  try {
    body = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    const where = error instanceof SyntaxError ? error.message.slice(0, 200) : 'unknown reason'
    return refuse({
      path: '',
      code: 'not-json',
      message: `The body is not JSON (${where}). Correct the text at that place.`,
    })
  }
  if (typeof body !== 'object' || body === null || Array.isArray(body))
    return refuse({ path: '', code: 'wrong-type', message: `Got ${describeReceived(body)}. Give ${wanted}.` })
  const asked = body as Record<string, unknown>
  const reading = readSession(asked.session)
  return reading.ok ? { ok: true, asked, session: reading.session } : refuse(...faultsUnder('session', reading.faults))
}
