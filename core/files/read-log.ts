import type { Fault } from './fault'
import { describeReceived, faultsUnder } from './fault'
import type { Log, StoredMark } from '../session/log'
import { LOG_VERSION, logEnvelope } from '../session/log'
import { readSession } from './read'
import { patched } from './stored-mark'
import { faultsFrom } from './structure'
import type { z } from '../model/z'

/** Faults that are told of one log. */
const MOST_FAULTS = 20

type Envelope = z.infer<typeof logEnvelope>
type MarkEnvelope = Envelope['marks'][number]

/** Reads the log of a session file: every mark’s session as if it came from a file of its own. */
export function readLog(raw: unknown): { ok: true; log: Log } | { ok: false; faults: Fault[] } {
  const newer = newerFault(raw)
  if (newer) return { ok: false, faults: faultsUnder('log', [newer]) }
  const parsed = logEnvelope.safeParse(raw)
  if (!parsed.success)
    return { ok: false, faults: faultsUnder('log', faultsFrom(parsed.error.issues.slice(0, MOST_FAULTS), raw)) }
  const reading = readMarks(parsed.data.marks)
  const all = [...reading.faults, ...doubles('marks', parsed.data.marks), ...doubles('takes', parsed.data.takes)]
  return all.length > 0
    ? { ok: false, faults: faultsUnder('log', all.slice(0, MOST_FAULTS)) }
    : { ok: true, log: { marks: reading.marks, takes: parsed.data.takes } }
}

function readMarks(envelopes: readonly MarkEnvelope[]): { marks: StoredMark[]; faults: Fault[] } {
  const faults: Fault[] = []
  /** Sessions of the whole marks so far, as the file has them. */
  const whole = new Map<string, unknown>()
  const marks = envelopes.flatMap((envelope, i): StoredMark[] => {
    const reading = readMark(envelope, whole)
    if (envelope.session !== undefined) whole.set(envelope.id, envelope.session)
    if (reading.ok) return [reading.mark]
    if (faults.length < MOST_FAULTS) faults.push(...faultsUnder(`marks[${i}]`, reading.faults))
    return []
  })
  return { marks, faults }
}

/** Reads one stored mark; `whole` gives the sessions that changes may start from. */
export function readMark(
  { session, from, changes, ...head }: MarkEnvelope,
  whole: ReadonlyMap<string, unknown>,
): { ok: true; mark: StoredMark } | { ok: false; faults: Fault[] } {
  if (session !== undefined) {
    const reading = readMarkSession(session)
    return reading.ok
      ? { ok: true, mark: { ...head, session: reading.session } }
      : { ok: false, faults: faultsUnder('session', reading.faults) }
  }
  if (from === undefined || changes === undefined) return refuse('session', 'missing', NO_SESSION)
  if (!whole.has(from))
    return refuse('from', 'no-such-mark', `No earlier mark "${from}" holds its session whole. ${NO_SESSION}`)
  const then = patched(whole.get(from), changes)
  if (then === undefined)
    return refuse('changes', 'does-not-fit', `These changes do not fit the session of mark "${from}".`)
  const reading = readMarkSession(then)
  return reading.ok
    ? { ok: true, mark: { ...head, from, changes } }
    : { ok: false, faults: faultsUnder('changes', reading.faults) }
}

const NO_SESSION = 'Give the session as it stood, or "from" and "changes".'

/** Reads the session of a mark, which has no log of its own. */
function readMarkSession(raw: unknown): ReturnType<typeof readSession> {
  const reading = readSession(raw)
  const isNested = typeof raw === 'object' && raw !== null && 'log' in raw
  if (!reading.ok || !isNested) return reading
  return { ok: false, faults: [{ path: 'log', code: 'unknown-key', message: NESTED }] }
}

const NESTED = 'The session of a mark has no log of its own. Remove it.'

function newerFault(raw: unknown): Fault | null {
  const { version } = (typeof raw === 'object' && raw !== null ? raw : {}) as { version?: unknown }
  if (typeof version !== 'number' || !(version > LOG_VERSION)) return null
  return {
    path: 'version',
    code: 'newer-version',
    message: `The log has version ${describeReceived(version)}; this program reads versions up to ${LOG_VERSION}. Open the file with a newer Remetra. Nothing was changed.`,
  }
}

const refuse = (path: string, code: string, message: string) => ({
  ok: false as const,
  faults: [{ path, code, message }],
})

function doubles(list: string, entries: readonly { id: string }[]): Fault[] {
  const seen = new Set<string>()
  return entries.flatMap(({ id }, i) => {
    if (!seen.has(id)) {
      seen.add(id)
      return []
    }
    return [
      { path: `${list}[${i}].id`, code: 'doubled', message: `There is another entry "${id}". Give each its own.` },
    ]
  })
}
