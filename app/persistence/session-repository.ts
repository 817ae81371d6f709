import { liveQuery } from 'dexie'
import { entriesOf, logOf } from '#core/log/entries'
import type { BackupSession } from '#core/files'
import type { Session } from '#core/session'
import type { Aside } from './aside'
import { ROW_VERSION, aside, isNewer } from './aside'
import { ConflictError, GoneError, NewerDataError, RESTORABLE_DAYS } from './conflict'
import type { AsideRow, RemetraDatabase, RevisionRow, SessionRow, Step } from './database'
import type { Opening } from './kept-session'
import { nearestFirst, sessionOf, soundRow } from './kept-session'
import { logRow, readLogRows } from './log-row'

/** Where a session's history stands, and what of it the database does not have yet. */
export interface HistoryState {
  name: string
  steps: readonly Step[]
  cursor: number
  unwritten: readonly (Step & { session: Session })[]
}

/** Sessions in the browser's database. Every write is one transaction: it happens whole or not at all. */
export class SessionRepository {
  constructor(
    private readonly database: RemetraDatabase,
    private readonly now: () => number = Date.now,
  ) {}

  list(): Promise<SessionRow[]> {
    return this.database.sessions.toArray((rows) => rows.map((row) => soundRow(row.key, row, () => [])))
  }

  /** Opens a session at the step it stood at, or at the nearest one that can be read. */
  read(key: string): Promise<Opening> {
    const { sessions, revisions } = this.database
    return this.database.transaction('r', sessions, revisions, async (): Promise<Opening> => {
      const found = await sessions.get(key)
      if (!found) return { state: 'absent' }
      const numbers = (await revisions.where('key').equals(key).primaryKeys()).map(([, number]) => number)
      const row = soundRow(key, found, () => numbers)
      if (row.deletedAt > 0) return { state: 'deleted', name: row.name }
      if (isNewer(row)) return { state: 'newer', name: row.name, raw: await this.raw(key) }
      for (const { number } of nearestFirst(row)) {
        const revision = await revisions.get([key, number])
        if (isNewer(revision?.session)) return { state: 'newer', name: row.name, raw: await this.raw(key) }
        const session = sessionOf(revision)
        if (!session) continue
        const damage =
          number === found.cursor
            ? null
            : 'The last state of this session can no longer be read; this is the nearest one that can. Check it, and export it.'
        return { state: 'open', row: { ...row, cursor: number }, session, damage }
      }
      return { state: 'unreadable', why: 'No stored state of this session can be read.', raw: await this.raw(key) }
    })
  }

  /** Everything that the database has of a session, as it is. */
  private async raw(key: string): Promise<object> {
    const { sessions, revisions } = this.database
    return { session: await sessions.get(key), revisions: await revisions.where('key').equals(key).toArray() }
  }

  /** The session after one step; `null` where it is missing or damaged. */
  async revision(key: string, number: number): Promise<Session | null> {
    return sessionOf(await this.database.revisions.get([key, number]))
  }

  create(key: string, session: Session, label: string): Promise<SessionRow> {
    return this.begin(key, session, label, (row) => this.database.sessions.add(row))
  }

  /**
   * Puts a session in the place of one that cannot be read; its log stays, and what was there is set aside.
   * @throws NewerDataError; then nothing was written
   */
  replace(key: string, session: Session, label: string): Promise<SessionRow> {
    const { sessions, revisions } = this.database
    return this.database.transaction('rw', sessions, revisions, this.database.aside, async () => {
      const before = await sessions.get(key)
      const steps = await revisions.where('key').equals(key).toArray()
      if (isNewer(before) || steps.some((step) => isNewer(step.session)))
        throw new NewerDataError('written by a newer version')
      if (before || steps.length > 0)
        await this.database.aside.add({
          name: soundRow(key, before ?? {}, () => []).name,
          why: 'replaced',
          raw: { session: before, revisions: steps },
          at: this.now(),
        })
      return this.begin(key, session, label, (row) => sessions.put(row))
    })
  }

  /** What was replaced, the newest first. */
  async replaced(): Promise<AsideRow[]> {
    return this.database.aside.reverse().toArray()
  }

  /** Sets something aside that is about to be replaced. */
  async setAside(name: string, raw: unknown): Promise<void> {
    await this.database.aside.add({ name, why: 'replaced', raw, at: this.now() })
  }

  async dropReplaced(number: number): Promise<void> {
    await this.database.aside.delete(number)
  }

  private async begin(
    key: string,
    session: Session,
    label: string,
    write: (row: SessionRow) => PromiseLike<unknown>,
  ): Promise<SessionRow> {
    const { sessions, revisions } = this.database
    const row: SessionRow = {
      key,
      name: session.name,
      updatedAt: this.now(),
      cursor: 0,
      steps: [{ number: 0, label }],
      writes: 1,
      deletedAt: 0,
      deletedOn: 0,
      version: ROW_VERSION,
    }
    await this.database.transaction('rw', sessions, revisions, async () => {
      await write(row)
      await revisions.where('key').equals(key).delete()
      await revisions.add({ key, number: 0, label, session })
    })
    return row
  }

  /**
   * Brings the database to where the history stands: writes what it does not have, drops what is no longer part of it,
   * moves the cursor.
   * @throws ConflictError, GoneError, NewerDataError; then nothing was written
   */
  sync(known: SessionRow, history: HistoryState): Promise<SessionRow> {
    const { key } = known
    const { sessions, revisions } = this.database
    const [first, last] = [history.steps[0]?.number ?? 0, history.steps.at(-1)?.number ?? 0]
    return this.database.transaction('rw', sessions, revisions, async () => {
      const stored = await this.writable(known)
      const own = revisions.where('[key+number]')
      const past = () => [
        own.between([key, -Infinity], [key, first], true, false),
        own.between([key, last], [key, Infinity], false, true),
      ]
      for (const each of past())
        if ((await each.filter(({ session }) => isNewer(session)).count()) > 0)
          throw new NewerDataError('written by a newer version')
      for (const each of past()) await each.delete()
      await revisions.bulkPut(history.unwritten.map((each): RevisionRow => ({ key, ...each })))
      if ((await revisions.where({ key, number: history.cursor }).count()) !== 1)
        throw new Error(`Step ${history.cursor} of session ${key} would be lost`)
      const row = {
        ...stored,
        name: history.name,
        cursor: history.cursor,
        steps: [...history.steps],
        updatedAt: this.now(),
        writes: stored.writes + 1,
        version: ROW_VERSION,
      }
      await sessions.put(row)
      return row
    })
  }

  /** The keys of all sessions that are kept. */
  async keys(): Promise<string[]> {
    return (await this.list()).filter(({ deletedAt }) => deletedAt === 0).map(({ key }) => key)
  }

  /**
   * A kept session with its log and all its steps that can be read, and what cannot; `session` is `null` where nothing can, or where a
   * newer version wrote it.
   */
  whole(key: string): Promise<{ session: BackupSession | null; aside: Aside[] }> {
    const { sessions, revisions, log } = this.database
    return this.database.transaction('r', sessions, revisions, log, async () => {
      const found = (await sessions.get(key)) ?? {}
      const row = soundRow(key, found, () => [])
      const own = await revisions.where('key').equals(key).sortBy('number')
      if (isNewer(row) || own.some(({ session }) => isNewer(session)))
        return { session: null, aside: [{ name: `“${row.name}”`, why: 'newer', raw: await this.raw(key) }] }
      const left: Aside[] = []
      const steps = own.flatMap((step) => {
        const session = sessionOf(step)
        if (!session) left.push(aside(`“${row.name}”, step ${step.number}`, step))
        return session ? [{ number: step.number, label: String(step.label), session }] : []
      })
      const entries = readLogRows(await log.where('key').equals(key).sortBy('number'))
      left.push(...entries.aside.map((each) => ({ ...each, name: `“${row.name}”, ${each.name.toLowerCase()}` })))
      const cursor = steps.some(({ number }) => number === row.cursor) ? row.cursor : steps.at(-1)?.number
      if (cursor === undefined) return { session: null, aside: [...left, aside(`“${row.name}”`, await this.raw(key))] }
      const { name, updatedAt } = row
      const kept = logOf(entries.entries)
      const hasLog = kept.marks.length + kept.takes.length > 0
      return { session: { name, updatedAt, cursor, steps, ...(hasLog && { log: kept }) }, aside: left }
    })
  }

  /** Puts a session with its history beside what is there. */
  async add(key: string, { name, updatedAt, cursor, steps, log: kept }: BackupSession): Promise<void> {
    const { sessions, revisions, log } = this.database
    const list = steps.map(({ number, label }) => ({ number, label }))
    await this.database.transaction('rw', sessions, revisions, log, async () => {
      if (kept) await log.bulkAdd(entriesOf(kept).map((entry) => logRow(key, entry, true)))
      const version = ROW_VERSION
      await sessions.add({ key, name, updatedAt, cursor, steps: list, writes: 1, deletedAt: 0, deletedOn: 0, version })
      await revisions.bulkAdd(steps.map((each): RevisionRow => ({ key, ...each })))
    })
  }

  remove(key: string, day: number): Promise<void> {
    return this.mark(key, this.now(), day)
  }

  restore(key: string): Promise<void> {
    return this.mark(key, 0, 0)
  }

  /** Drops sessions for good, whatever they held. */
  async erase(keys: readonly string[]): Promise<void> {
    const { sessions, revisions, log } = this.database
    await this.database.transaction('rw', sessions, revisions, log, async () => {
      await sessions.bulkDelete([...keys])
      await log.where('key').anyOf(keys).delete()
      await revisions.where('key').anyOf(keys).delete()
    })
  }

  /** Drops for good what was deleted many days of use ago. @returns the keys dropped. */
  async purge(today: number): Promise<string[]> {
    const old = await this.database.sessions
      .filter((row) => !isNewer(row) && row.deletedAt > 0 && today - (row.deletedOn ?? today) >= RESTORABLE_DAYS)
      .primaryKeys()
    if (old.length > 0) await this.erase(old)
    return old
  }

  /** Calls back with a session's row, now and whenever this or another tab writes it; revisions are read on demand. */
  watch(key: string, changed: (row: SessionRow | null) => void, failed: (error: unknown) => void): () => void {
    const subscription = liveQuery(() => this.database.sessions.get(key)).subscribe(
      (row) => changed(row ? soundRow(key, row, () => []) : null),
      failed,
    )
    return () => subscription.unsubscribe()
  }

  watchList(changed: (rows: SessionRow[]) => void, failed: (error: unknown) => void): () => void {
    const subscription = liveQuery(() => this.list()).subscribe(changed, failed)
    return () => subscription.unsubscribe()
  }

  private async writable(known: SessionRow): Promise<SessionRow> {
    const stored = await this.database.sessions.get(known.key)
    if (!stored) throw new GoneError('absent')
    if (stored.deletedAt > 0) throw new GoneError('deleted')
    if (isNewer(stored)) throw new NewerDataError('written by a newer version')
    if ((stored.writes ?? 0) !== known.writes) throw new ConflictError('written by another tab')
    return stored
  }

  private async mark(key: string, deletedAt: number, deletedOn: number): Promise<void> {
    await this.database.transaction('rw', this.database.sessions, async () => {
      const row = await this.database.sessions.get(key)
      if (!row) throw new GoneError('absent')
      if (isNewer(row)) throw new NewerDataError('written by a newer version')
      await this.database.sessions.put({ ...row, deletedAt, deletedOn, writes: (row.writes ?? 0) + 1 })
    })
  }
}
