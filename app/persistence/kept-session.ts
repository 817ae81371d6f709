import type { Session } from '#core/session'
import { readSession } from '#core/files'
import type { SessionRow, Step } from './database'

/** What opening a kept session gave. */
export type Opening =
  | { state: 'open'; row: SessionRow; session: Session; damage: string | null }
  | { state: 'absent' }
  | { state: 'deleted'; name: string }
  /** A newer version of the program wrote it; it is left alone. */
  | { state: 'newer'; name: string; raw: unknown }
  /** Nothing of it can be read as a session; `raw` is everything that is there. */
  | { state: 'unreadable'; why: string; raw: unknown }

const isCount = (value: unknown): value is number => Number.isInteger(value) && (value as number) >= 0
const isStep = (value: unknown): value is Step =>
  typeof value === 'object' && value !== null && isCount((value as Step).number) && 'label' in value

/** A row as it was found, made sound: what is missing or of another kind is filled from the revisions that are there. */
export function soundRow(key: string, found: Partial<SessionRow>, numbers: () => number[]): SessionRow {
  const listed = Array.isArray(found.steps) ? found.steps.filter(isStep) : []
  const steps = listed.length > 0 ? listed : numbers().map((number) => ({ number, label: 'Change' }))
  return {
    key,
    name: typeof found.name === 'string' ? found.name : 'Session',
    updatedAt: isCount(found.updatedAt) ? found.updatedAt : 0,
    cursor: isCount(found.cursor) ? found.cursor : (steps.at(-1)?.number ?? 0),
    steps,
    writes: isCount(found.writes) ? found.writes : 0,
    deletedAt: isCount(found.deletedAt) ? found.deletedAt : 0,
    deletedOn: isCount(found.deletedOn) ? found.deletedOn : 0,
    version: isCount(found.version) ? found.version : 0,
  }
}

/** The steps of a row, those next to the cursor first and of two equally far the earlier one. */
export const nearestFirst = ({ cursor, steps }: SessionRow): Step[] =>
  [...steps].sort((a, b) => Math.abs(a.number - cursor) - Math.abs(b.number - cursor) || a.number - b.number)

/** A revision's session, if it is one: what comes from the disk is read as if it came from a file. */
export function sessionOf(revision: { session?: unknown } | undefined): Session | null {
  const reading = readSession(revision?.session)
  return reading.ok ? reading.session : null
}
