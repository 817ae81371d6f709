import type { LogEntry } from '#core/log/entries'
import { idOf } from '#core/log/entries'
import { readLogEntry } from '#core/log/read-entry'
import type { Mark } from '#core/session'
import type { Aside } from './aside'
import { ROW_VERSION, aside, isNewer } from './aside'

/** An addition to the log of a session: never changed, never undone; a later one of the same entry takes its place. */
export interface LogRow {
  number?: number
  key: string
  id: string
  /** Which kind of entry begins with this row; missing where the entry was there already. */
  begins?: 'mark' | 'take'
  /** The number of a take. */
  take?: number
  /** 1 where the row holds a mark’s session whole. */
  whole?: 1
  version: number
  entry: LogEntry
}

export const logRow = (key: string, entry: LogEntry, isNew: boolean): LogRow => ({
  key,
  id: idOf(entry),
  ...(isNew && { begins: 'take' in entry ? 'take' : 'mark' }),
  version: ROW_VERSION,
  entry,
  ...('take' in entry ? { take: entry.take.number } : 'session' in entry.mark && { whole: 1 }),
})

/** The mark that a row holds whole. */
export function wholeMark(row: LogRow | undefined): Mark | null {
  const { mark } = (row?.entry ?? {}) as { mark?: unknown }
  return typeof mark === 'object' && mark !== null && 'session' in mark ? (mark as Mark) : null
}

/** Rows as they were found: the entries in those that can be read, and the others as they are. */
export function readLogRows(rows: readonly LogRow[]): { entries: LogEntry[]; aside: Aside[] } {
  const entries: LogEntry[] = []
  const left: Aside[] = []
  for (const row of rows) {
    const entry = isNewer(row) ? null : readLogEntry(row.entry)
    if (entry) entries.push(entry)
    else left.push(aside(nameOf(row), row))
  }
  return { entries, aside: left }
}

function nameOf(row: unknown): string {
  const { entry, number } = row as {
    entry?: { mark?: { name?: unknown }; take?: { number?: unknown } }
    number?: unknown
  }
  const [mark, number_] = [entry?.mark?.name, entry?.take?.number]
  if (typeof mark === 'string') return `Mark “${mark.slice(0, 80)}”`
  return typeof number_ === 'number' ? `Take ${number_}` : `Log entry ${String(number ?? '')}`
}
