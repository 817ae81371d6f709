import type { Log } from './log'
import { log as logSchema } from './log'
import type { Session } from './session'
import { session as schema } from './session'

/**
 * The text of a session file: two spaces of indentation, keys in the order of the schema, the log last, a line end at the end.
 * Reading it back and writing it again gives the same bytes.
 */
export function writeSession(session: Session, log: Log | null = null): string {
  const carried = log && (log.marks.length > 0 || log.takes.length > 0) ? { log: logSchema.parse(log) } : {}
  return `${JSON.stringify({ ...schema.parse(session), ...carried }, null, 2)}\n`
}
