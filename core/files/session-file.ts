import type { Fault } from './fault'
import type { Log, StoredMark } from '../session/log'
import { LOG_VERSION, markHead, take } from '../session/log'
import { parseSessionText, readSession } from './read'
import { readLog } from './read-log'
import type { Session } from '../session/session'
import { headOf } from './stored-mark'
import { writeSession } from './write'

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

/**
 * The text of a session file in parts, so that a long log is never one string: the session as `writeSession` writes it, and the log
 * behind it with each entry on a line of its own. Without entries the log is left out.
 */
export function* sessionFileParts(session: Session, log: Log | null): Generator<string> {
  const text = writeSession(session)
  if (!log || log.marks.length + log.takes.length === 0) {
    yield text
    return
  }
  yield `${text.slice(0, text.lastIndexOf('\n}'))},\n  "log": `
  yield* logParts(log)
  yield '\n}\n'
}

/** A log as JSON in parts, each entry on a line of its own. */
export function* logParts({ marks, takes }: Log): Generator<string> {
  yield '{'
  if (marks.some((mark) => 'changes' in mark)) yield `\n    "version": ${LOG_VERSION},`
  yield '\n    "marks": ['
  yield* lines(marks, inOrder)
  yield '],\n    "takes": ['
  yield* lines(takes, (each) => take.parse(each))
  yield ']\n  }'
}

function* lines<T>(entries: readonly T[], shaped: (entry: T) => object): Generator<string> {
  for (const [i, entry] of entries.entries()) yield `${i > 0 ? ',' : ''}\n      ${JSON.stringify(shaped(entry))}`
  if (entries.length > 0) yield '\n    '
}

/** A mark with its keys in the order of the schema; its session has them so already. */
const inOrder = (mark: StoredMark): object => ({
  ...markHead.parse(headOf(mark)),
  ...('session' in mark ? { session: mark.session } : { from: mark.from, changes: mark.changes }),
})

/** The text of a session file with its log, as one string. */
export const writeSessionFile = (session: Session, log: Log | null): string =>
  [...sessionFileParts(session, log)].join('')
