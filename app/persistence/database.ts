import type { Table } from 'dexie'
import Dexie from 'dexie'
import type { LogEntry } from '#core/log/entries'
import { hasSession } from '#core/log/entries'
import type { Gear } from '#core/gear'
import type { Mark, Session } from '#core/session'
import { migrateGear, readGear, readSession } from '#core/files'
import { headOf, storedMark } from '#core/files/stored-mark'
import type { Progress } from '#core/trainer/schedule'
import type { Aside } from './aside'
import { NewerDatabaseError } from './conflict'
import type { LogRow } from './log-row'
import { logRow, wholeMark } from './log-row'

/** The newest layout of the database that this program knows. */
const LATEST = 8

/** One committed change as the list of undo shows it; the session after it is the revision of that number. */
export interface Step {
  number: number
  label: string
}

/** A kept session. Its key is the browser's own: a file imported twice makes two rows and keeps its id in both. */
export interface SessionRow {
  key: string
  name: string
  updatedAt: number
  /** Number of the step shown; those above it can be redone. */
  cursor: number
  /** The steps kept, in their order: as far back as undo goes. */
  steps: Step[]
  /** Counts every write; two tabs that both think they are up to date differ in it. */
  writes: number
  /** Time of deletion, 0 while it is kept. */
  deletedAt: number
  /** The day of use on which it was deleted (`DayCount`). */
  deletedOn: number
  /** The version of the session file that the steps are written with. */
  version: number
}

/** The session after one committed change. */
export interface RevisionRow {
  key: string
  number: number
  /** What the change was, as undo names it. */
  label: string
  session: Session
}

/** A small fact about this browser, such as which session was open last. */
export interface MemoRow {
  name: string
  value: string
}

/** An item of the gear shelf. */
export interface ShelfRow {
  id: string
  item: Gear
  updatedAt: number
  writes: number
  /** Time of deletion, 0 while it is kept. */
  deletedAt: number
  version: number
}

/** What was replaced by something else, kept until it is deleted by hand. */
export interface AsideRow extends Aside {
  number?: number
  /** When it was replaced, ms since 1970. */
  at: number
}

/** A file on disk in which a session is kept besides. */
export interface LinkRow {
  key: string
  handle: FileSystemFileHandle
  name: string
  /** Of the file as this browser wrote it last, ms; another one tells that it was changed from outside. */
  lastModified: number
}

export class RemetraDatabase extends Dexie {
  sessions!: Table<SessionRow, string>
  revisions!: Table<RevisionRow, [string, number]>
  memos!: Table<MemoRow, string>
  shelf!: Table<ShelfRow, string>
  links!: Table<LinkRow, string>
  log!: Table<LogRow, number>
  aside!: Table<AsideRow, number>
  /** How well each kind of exercise goes, and the time practised by day. */
  trained!: Table<Progress & { version?: number }, string>
  practice!: Table<{ day: number; seconds: number }, number>

  constructor(name = 'remetra') {
    // What was answered as written is on the disk, not in a cache that a power cut empties.
    super(name, {
      chromeTransactionDurability: 'strict',
      ...(typeof indexedDB !== 'undefined' && { indexedDB: onlyKnown(indexedDB), IDBKeyRange }),
    })
    this.version(1).stores({ sessions: 'key', revisions: '[key+number], key', memos: 'name' })
    this.version(2).stores({ shelf: 'id' })
    // Sessions and gear of file version 1. What no reader takes stays as it is: nothing that is kept is ever lost.
    this.version(3).upgrade(async (transaction) => {
      await transaction
        .table<RevisionRow>('revisions')
        .toCollection()
        .modify((row) => {
          const reading = readSession(row.session)
          if (reading.ok) row.session = reading.session
        })
      await transaction
        .table<ShelfRow>('shelf')
        .toCollection()
        .modify((row) => {
          const reading = readGear(migrateGear(row.item))
          if (reading.ok) row.item = reading.gear
        })
    })
    this.version(5).stores({ links: 'key' })
    this.version(6).stores({ log: '++number, key' })
    this.version(7).stores({ trained: 'kind', practice: 'day' })
    this.version(LATEST)
      .stores({ log: '++number, key, [key+id], [key+begins], [key+take], [key+whole]', aside: '++number' })
      .upgrade((transaction) => withChanges(transaction.table<LogRow, number>('log')))
    // The labels of undo stand in the session's row, so that opening it reads one revision and not all.
    this.version(4).upgrade(async (transaction) => {
      const steps = new Map<string, Step[]>()
      await transaction.table<RevisionRow>('revisions').each(({ key, number, label }) => {
        steps.set(key, [...(steps.get(key) ?? []), { number, label }])
      })
      await transaction
        .table<SessionRow>('sessions')
        .toCollection()
        .modify((row) => {
          row.steps = steps.get(row.key) ?? []
          row.deletedOn = 0
        })
      await transaction
        .table<ShelfRow>('shelf')
        .toCollection()
        .modify((row) => {
          row.writes = 1
        })
    })
  }
}

/**
 * The browser's databases, of which none of a newer layout is opened: the package would ask for it without a version then, and add to
 * it what it misses.
 */
const onlyKnown = (factory: IDBFactory): IDBFactory => ({
  open: (name, version) => {
    if (version === undefined) throw new NewerDatabaseError('made by a newer version')
    return factory.open(name, version)
  },
  deleteDatabase: (name) => factory.deleteDatabase(name),
  databases: () => factory.databases(),
  cmp: (first, second) => factory.cmp(first, second),
})

/** Marks were kept whole, once more with each change of their name: now as changes against an earlier one where that is smaller. */
async function withChanges(log: Table<LogRow, number>): Promise<void> {
  const whole = new Map<string, Mark>()
  const known = new Set<string>()
  await log.toCollection().modify((row) => {
    const { size } = known
    const entry = asStored(row, whole.get(row.key) ?? null, known)
    if (entry) Object.assign(row, logRow(row.key, entry, known.size > size))
    const mark = wholeMark(row)
    if (mark) whole.set(row.key, mark)
  })
}

/** `null` where the entry is none: it stays as it is. */
function asStored({ key, entry }: LogRow, whole: Mark | null, known: Set<string>): LogEntry | null {
  if (typeof entry !== 'object' || entry === null) return null
  if ('take' in entry) {
    if (typeof entry.take?.id !== 'string') return null
    known.add(`${key} ${entry.take.id}`)
    return entry
  }
  const { mark } = entry
  if (typeof mark !== 'object' || typeof mark?.id !== 'string' || !hasSession(mark) || !('session' in mark)) return null
  if (typeof mark.session !== 'object' || mark.session === null) return null
  const id = `${key} ${mark.id}`
  if (known.has(id)) return { mark: headOf(mark) }
  known.add(id)
  return { mark: storedMark(mark, whole) }
}
