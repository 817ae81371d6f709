import type { Table } from 'dexie'
import Dexie from 'dexie'
import type { Gear, Session } from '#core/session'
import { migrateGear, readGear, readSession } from '#core/session'

/** A kept session. Its key is the browser's own: a file imported twice makes two rows and keeps its id in both. */
export interface SessionRow {
  key: string
  name: string
  updatedAt: number
  /** Number of the revision shown; those above it can be redone. */
  cursor: number
  /** Counts every write; two tabs that both think they are up to date differ in it. */
  writes: number
  /** Time of deletion, 0 while it is kept. */
  deletedAt: number
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
  /** Time of deletion, 0 while it is kept. */
  deletedAt: number
}

export class RemetraDatabase extends Dexie {
  sessions!: Table<SessionRow, string>
  revisions!: Table<RevisionRow, [string, number]>
  memos!: Table<MemoRow, string>
  shelf!: Table<ShelfRow, string>

  constructor(name = 'remetra') {
    super(name)
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
  }
}
