import type { Fault } from './fault'
import type { Log } from './log'
import { log as logSchema } from './log'
import { parseSessionText, readSession } from './read'
import { readLog } from './read-log'
import type { Session } from './session'
import { session as schema } from './session'
import { inJson } from './write'

/** A session file read: the session, and the log that it may carry. */
export type SessionFileReading = { ok: true; session: Session; log: Log | null } | { ok: false; faults: Fault[] }

/** Reads a session and its log from the text of a file, and names the faults of both at once. */
export function readSessionFile(text: string): SessionFileReading {
  const parsed = parseSessionText(text)
  if (!parsed.ok) return parsed
  const session = readSession(parsed.raw)
  const raw = typeof parsed.raw === 'object' && parsed.raw !== null && 'log' in parsed.raw ? parsed.raw.log : undefined
  const log = raw === undefined ? null : readLog(raw)
  const faults = [...(session.ok ? [] : session.faults), ...(log?.ok === false ? log.faults : [])]
  return session.ok && faults.length === 0
    ? { ok: true, session: session.session, log: log?.ok ? log.log : null }
    : { ok: false, faults }
}

/** The text of a session file with its log, which comes last; without entries it is left out. */
export const writeSessionFile = (session: Session, log: Log | null): string =>
  inJson({
    ...schema.parse(session),
    ...(log && log.marks.length + log.takes.length > 0 && { log: logSchema.parse(log) }),
  })
