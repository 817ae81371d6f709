import equal from 'fast-deep-equal'
import type { Log, Mark, MarkHead, Session, StoredMark, Take } from '../session'
import { MOST_MARKS, MOST_TAKES } from '../session'

/** An addition to a log: a new entry, or a known one as it is meant from now on. A known mark keeps its session. */
export type LogEntry = { mark: StoredMark | MarkHead } | { take: Take }

export const hasSession = (mark: StoredMark | MarkHead): mark is StoredMark => 'session' in mark || 'changes' in mark

/** The log that entries make, the later one of an id taking the earlier one’s place. A mark without a session anywhere is left out. */
export function logOf(entries: readonly LogEntry[]): Log {
  const [marks, takes] = [new Map<string, StoredMark>(), new Map<string, Take>()]
  for (const entry of entries) {
    if ('take' in entry) takes.set(entry.take.id, entry.take)
    else if (hasSession(entry.mark)) marks.set(entry.mark.id, entry.mark)
    else {
      const known = marks.get(entry.mark.id)
      if (known) marks.set(known.id, withHead(known, entry.mark))
    }
  }
  return { marks: [...marks.values()], takes: [...takes.values()] }
}

const withHead = (known: StoredMark, head: MarkHead): StoredMark =>
  'session' in known ? { ...head, session: known.session } : { ...head, from: known.from, changes: known.changes }

/** A log as the entries that make it. */
export const entriesOf = ({ marks, takes }: Log): LogEntry[] => [
  ...marks.map((mark) => ({ mark })),
  ...takes.map((take) => ({ take })),
]

export const idOf = (entry: LogEntry): string => ('mark' in entry ? entry.mark.id : entry.take.id)

/** What of another log one does not have yet. */
export function missingFrom(mine: Log, other: Log): LogEntry[] {
  const known = new Set([...mine.marks, ...mine.takes].map(({ id }) => id))
  return entriesOf(other).filter((entry) => !known.has(idOf(entry)))
}

/** The next take’s number: it counts on, also past deleted ones. */
export const nextTakeNumber = ({ takes }: Pick<Log, 'takes'>): number =>
  takes.reduce((most, { number }) => Math.max(most, number), 0) + 1

/** The mark with whose settings a take is made: the last one, as long as nothing was set otherwise since. */
export const lastMark = ({ marks }: Log): StoredMark | null => marks.findLast(({ struck }) => !struck) ?? null

/** Why nothing more can be added; `null` while there is room. */
export function fullLog({ marks, takes }: { marks: number; takes: number }): string | null {
  if (marks > MOST_MARKS)
    return `This log holds its maximum of ${MOST_MARKS} marks. Duplicate the session and go on in the copy.`
  if (takes > MOST_TAKES)
    return `This log holds its maximum of ${MOST_TAKES} takes. Duplicate the session and go on in the copy.`
  return null
}

type Settings = Pick<Session, 'gear' | 'strips' | 'system' | 'room' | 'target' | 'pairs'>
const settingsOf = ({ gear, strips, system, room, target, pairs }: Settings): Settings => ({
  gear,
  strips,
  system,
  room,
  target,
  pairs,
})

/** Whether a session stands as another one does; name, notes, readings and ticks aside. */
export const standsAs = (session: Session, other: Session): boolean =>
  equal(plain(settingsOf(session)), plain(settingsOf(other)))

const plain = (settings: Settings): unknown => JSON.parse(JSON.stringify(settings))

/** The session set back to a mark: everything but its name, its notes and what was read and ticked since. */
export const backTo = (session: Session, { session: then }: Mark): Session => ({ ...session, ...settingsOf(then) })
