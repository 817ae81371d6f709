import { liveQuery } from 'dexie'
import type { Session } from '#core/session'
import type { RemetraDatabase, RevisionRow, SessionRow } from './database'

/** Revisions kept of a session: as far back as undo goes. */
const MOST_REVISIONS = 200

/** Deleted sessions can be restored for that long. */
const RESTORABLE_MS = 30 * 24 * 3600 * 1000

/** Another tab wrote in between; nothing was written now. */
export class ConflictError extends Error {
  override readonly name = 'ConflictError'
}

export interface KeptSession {
  row: SessionRow
  revisions: RevisionRow[]
}

/** What a write leaves behind: the new row, so that the writer knows what it is up to date with. */
export type Written = SessionRow

/** Sessions in the browser's database. Every write is one transaction: it happens whole or not at all. */
export class SessionRepository {
  constructor(
    private readonly database: RemetraDatabase,
    private readonly now: () => number = Date.now,
  ) {}

  list(): Promise<SessionRow[]> {
    return this.database.sessions.toArray()
  }

  async read(key: string): Promise<KeptSession | null> {
    return this.database.transaction('r', this.database.sessions, this.database.revisions, async () => {
      const row = await this.database.sessions.get(key)
      if (!row || row.deletedAt > 0) return null
      const revisions = await this.database.revisions.where('key').equals(key).sortBy('number')
      return { row, revisions }
    })
  }

  async create(key: string, session: Session, label: string): Promise<Written> {
    const row: SessionRow = { key, name: session.name, updatedAt: this.now(), cursor: 0, writes: 1, deletedAt: 0 }
    await this.database.transaction('rw', this.database.sessions, this.database.revisions, async () => {
      await this.database.sessions.add(row)
      await this.database.revisions.add({ key, number: 0, label, session })
    })
    return row
  }

  /** Puts a new revision after the one that the writer stands on; what could have been redone is gone. */
  commit(known: SessionRow, revision: RevisionRow): Promise<Written> {
    return this.write(known, async () => {
      const own = this.database.revisions.where('[key+number]')
      await own.between([known.key, known.cursor], [known.key, Infinity], false, true).delete()
      await own.between([known.key, -Infinity], [known.key, revision.number - MOST_REVISIONS], true, true).delete()
      await this.database.revisions.put(revision)
      return { name: revision.session.name, cursor: revision.number }
    })
  }

  /** Shows another revision: undo and redo. */
  moveTo(known: SessionRow, revision: RevisionRow): Promise<Written> {
    return this.write(known, async () => ({ name: revision.session.name, cursor: revision.number }))
  }

  remove(key: string): Promise<void> {
    return this.mark(key, this.now())
  }

  restore(key: string): Promise<void> {
    return this.mark(key, 0)
  }

  /** Drops for good what was deleted long ago. */
  async purge(): Promise<void> {
    await this.database.transaction('rw', this.database.sessions, this.database.revisions, async () => {
      const old = await this.database.sessions
        .filter((row) => row.deletedAt > 0 && row.deletedAt < this.now() - RESTORABLE_MS)
        .primaryKeys()
      await this.database.sessions.bulkDelete(old)
      await this.database.revisions.where('key').anyOf(old).delete()
    })
  }

  /** Calls back with what is kept of a session, now and whenever this or another tab writes it. */
  watch(key: string, changed: (kept: KeptSession | null) => void, failed: (error: unknown) => void): () => void {
    const subscription = liveQuery(() => this.read(key)).subscribe(changed, failed)
    return () => subscription.unsubscribe()
  }

  watchList(changed: (rows: SessionRow[]) => void, failed: (error: unknown) => void): () => void {
    const subscription = liveQuery(() => this.list()).subscribe(changed, failed)
    return () => subscription.unsubscribe()
  }

  private write(known: SessionRow, change: () => Promise<Pick<SessionRow, 'name' | 'cursor'>>): Promise<Written> {
    return this.database.transaction('rw', this.database.sessions, this.database.revisions, async () => {
      const stored = await this.database.sessions.get(known.key)
      if (!stored || stored.writes !== known.writes) throw new ConflictError('written by another tab')
      const row = { ...stored, ...(await change()), updatedAt: this.now(), writes: stored.writes + 1 }
      await this.database.sessions.put(row)
      return row
    })
  }

  private async mark(key: string, deletedAt: number): Promise<void> {
    await this.database.transaction('rw', this.database.sessions, async () => {
      const row = await this.database.sessions.get(key)
      if (row) await this.database.sessions.put({ ...row, deletedAt, writes: row.writes + 1 })
    })
  }
}
