import type { Table } from 'dexie'
import Dexie from 'dexie'
import type { LogEntry } from '#core/log/entries'
import type { Gear, Session } from '#core/session'
import type { Progress } from '#core/trainer/schedule'
import { migrateGear, readGear, readSession } from '#core/session'

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
}

/** An addition to the log of a session: never changed, never undone; a later one of the same entry takes its place. */
export interface LogRow {
  number?: number
  key: string
  entry: LogEntry
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
  /** How well each kind of exercise goes, and the time practised by day. */
  trained!: Table<Progress, string>
  practice!: Table<{ day: number; seconds: number }, number>

  constructor(name = 'remetra') {
    // What was answered as written is on the disk, not in a cache that a power cut empties.
    super(name, { chromeTransactionDurability: 'strict' })
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
