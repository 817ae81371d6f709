import type { StoredMark } from '../session'
import { SESSION_VERSION, markEnvelope, markHead, take } from '../session'
import type { LogEntry } from './entries'

/** Whether a newer version of the program wrote something. */
export const isNewer = (found: unknown): boolean => {
  const { version } = (typeof found === 'object' && found !== null ? found : {}) as { version?: unknown }
  return typeof version === 'number' && version > SESSION_VERSION
}

/**
 * An entry of a log as it was found. The session of a mark is read when the mark is opened; here it has only to be one of something.
 * @returns `null` where it is none
 */
export function readLogEntry(found: unknown): LogEntry | null {
  if (typeof found !== 'object' || found === null) return null
  if ('take' in found) {
    const reading = take.safeParse(found.take)
    return reading.success ? { take: reading.data } : null
  }
  if (!('mark' in found)) return null
  const head = markHead.safeParse(found.mark)
  if (head.success) return { mark: head.data }
  const reading = markEnvelope.safeParse(found.mark)
  if (!reading.success) return null
  const { session, from, changes } = reading.data
  const isWhole = typeof session === 'object' && session !== null && !isNewer(session)
  return isWhole || (from !== undefined && changes) ? { mark: reading.data as StoredMark } : null
}
