import type { Log, Mark, Session, Take } from '../session'
import { MOST_MARKS, MOST_TAKES } from '../session'

/** An addition to a log: a new entry, or a known one as it is meant from now on. */
export type LogEntry = { mark: Mark } | { take: Take }

/** The log that entries make, the later one of an id taking the earlier one’s place. */
export function logOf(entries: readonly LogEntry[]): Log {
  const [marks, takes] = [new Map<string, Mark>(), new Map<string, Take>()]
  for (const entry of entries) {
    if ('mark' in entry) marks.set(entry.mark.id, entry.mark)
    else takes.set(entry.take.id, entry.take)
  }
  return { marks: [...marks.values()], takes: [...takes.values()] }
}

/** A log as the entries that make it. */
export const entriesOf = ({ marks, takes }: Log): LogEntry[] => [
  ...marks.map((mark) => ({ mark })),
  ...takes.map((take) => ({ take })),
]

/** What of another log one does not have yet. */
export function missingFrom(mine: Log, other: Log): LogEntry[] {
  const known = new Set([...mine.marks, ...mine.takes].map(({ id }) => id))
  return entriesOf(other).filter((entry) => !known.has('mark' in entry ? entry.mark.id : entry.take.id))
}

/** The next take’s number: it counts on, also past crossed-out ones. */
export const nextTakeNumber = ({ takes }: Log): number => Math.max(0, ...takes.map(({ number }) => number)) + 1

/** The mark with whose settings a take is made: the last one, as long as nothing was set otherwise since. */
export const lastMark = ({ marks }: Log): Mark | null => marks.findLast(({ struck }) => !struck) ?? null

/** Why nothing more can be logged; `null` while there is room. */
export function fullLog({ marks, takes }: Log): string | null {
  if (marks.length >= MOST_MARKS)
    return `The log holds ${MOST_MARKS} marks, and no more. Export it, and go on in a copy of the session.`
  if (takes.length >= MOST_TAKES)
    return `The log holds ${MOST_TAKES} takes, and no more. Export it, and go on in a copy of the session.`
  return null
}

/** Whether a session stands as a mark has it; the soundcheck’s ticks aside. */
export const standsAs = (session: Session, mark: Mark): boolean => settingsText(session) === settingsText(mark.session)

const settingsText = ({ gear, strips, system, room, target, pairs }: Session): string =>
  JSON.stringify([gear, strips, system, room, target, pairs])

/** The session set back to a mark: everything but its name, its notes and what was read and ticked since. */
export const backTo = (session: Session, { session: then }: Mark): Session => ({
  ...session,
  gear: then.gear,
  strips: then.strips,
  pairs: then.pairs,
  system: then.system,
  room: then.room,
  target: then.target,
})
