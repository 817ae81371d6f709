import type { Fault } from './fault'
import type { Log, Mark } from './log'
import { MOST_MARKS, MOST_TAKES, markEnvelope, take } from './log'
import { readSession } from './read'
import { faultsFrom } from './structure'
import { z } from './z'

const envelope = z.strictObject({
  marks: z.array(markEnvelope).max(MOST_MARKS).default([]),
  takes: z.array(take).max(MOST_TAKES).default([]),
})

/** Faults that are told of one log. */
const MOST_FAULTS = 20

/** Reads the log of a session file: every mark’s session as if it came from a file of its own. */
export function readLog(raw: unknown): { ok: true; log: Log } | { ok: false; faults: Fault[] } {
  const parsed = envelope.safeParse(raw)
  if (!parsed.success)
    return { ok: false, faults: underLog(faultsFrom(parsed.error.issues.slice(0, MOST_FAULTS), raw)) }
  const faults: Fault[] = []
  const marks = parsed.data.marks.flatMap(({ session, ...mark }, i): Mark[] => {
    const reading = readSession(session)
    const isNested = typeof session === 'object' && session !== null && 'log' in session
    if (reading.ok && !isNested) return [{ ...mark, session: reading.session }]
    const at = `marks[${i}].session`
    const own = reading.ok ? [{ path: 'log', code: 'unknown-key', message: NESTED }] : reading.faults
    faults.push(...own.map((fault) => ({ ...fault, path: fault.path ? `${at}.${fault.path}` : at })))
    return []
  })
  const doubled = [...doubles('marks', parsed.data.marks), ...doubles('takes', parsed.data.takes)]
  const all = [...faults, ...doubled]
  return all.length > 0
    ? { ok: false, faults: underLog(all.slice(0, MOST_FAULTS)) }
    : { ok: true, log: { marks, takes: parsed.data.takes } }
}

const NESTED = 'The session of a mark has no log of its own. Remove it.'

const underLog = (faults: Fault[]): Fault[] =>
  faults.map((fault) => ({ ...fault, path: fault.path ? `log.${fault.path}` : 'log' }))

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
