import { liveQuery } from 'dexie'
import { chunk, delay } from 'es-toolkit'
import type { LogEntry } from '#core/log/entries'
import { fullLog, hasSession, idOf, logOf, missingFrom } from '#core/log/entries'
import type { Log, Mark, MarkHead, Session, StoredMark, Take } from '#core/session'
import { sessionAsStored, storedMark } from '#core/files/stored-mark'
import type { Aside } from './aside'
import { LogFullError } from './conflict'
import type { RemetraDatabase } from './database'
import type { LogRow } from './log-row'
import { logRow, readLogRows, wholeMark } from './log-row'

/** Rows of a log as they were read. */
export interface LogReading {
  entries: LogEntry[]
  aside: Aside[]
  /** Number of the last row; entries added later have higher ones. */
  last: number
}

/** An entry to be added: a mark with its session, a known mark’s new head, a take. */
export type NewLogEntry = { mark: Mark | MarkHead } | { take: Take }

/** Entries that are written and checked in one task of the page: more of them at once would hold it up. */
const SLICE = 80

/** The logs of sessions: entries are only ever added, apart from the steps of undo. */
export class LogRepository {
  constructor(private readonly database: RemetraDatabase) {}

  /** Entries in the order in which they were added, and what cannot be read. */
  async read(key: string, after = 0): Promise<LogReading> {
    const rows = await this.rows(key, after)
    const entries: LogEntry[] = []
    const left: Aside[] = []
    for (const slice of chunk(rows, SLICE)) {
      const read = readLogRows(slice)
      entries.push(...read.entries)
      left.push(...read.aside)
      await delay(0)
    }
    return { entries, aside: left, last: rows.at(-1)?.number ?? after }
  }

  private rows(key: string, after = 0): Promise<LogRow[]> {
    const { log } = this.database
    return after === 0
      ? log.where('key').equals(key).sortBy('number')
      : log
          .where('number')
          .above(after)
          .filter((row) => row.key === key)
          .toArray()
  }

  async list(key: string): Promise<LogEntry[]> {
    return (await this.read(key)).entries
  }

  /**
   * Adds entries in one transaction: the number of a new take that another one has meanwhile gives way to the next free one, and a
   * mark is stored as changes against the last whole one where that is smaller.
   * @returns the entries as they were stored
   * @throws LogFullError; then nothing was added
   */
  add(key: string, entries: readonly NewLogEntry[]): Promise<LogEntry[]> {
    return this.database.transaction('rw', this.database.log, async () => {
      let whole = await this.lastWhole(key)
      const stored: LogEntry[] = []
      for (const entry of entries) {
        const isNew = (await this.database.log.where({ key, id: idOf(entry) }).count()) === 0
        if ('take' in entry) {
          const number = isNew ? await this.freeNumber(key, entry.take.number) : entry.take.number
          stored.push({ take: { ...entry.take, number } })
        } else {
          const mark: StoredMark | MarkHead = 'session' in entry.mark ? storedMark(entry.mark, whole) : entry.mark
          if (hasSession(mark) && 'session' in mark) whole = mark
          stored.push({ mark })
        }
        await this.put(key, stored.slice(-1), isNew)
      }
      await this.refuseWhereFull(key, entries)
      return stored
    })
  }

  /** Adds what of another log this one does not have, with its take numbers. @returns how many entries */
  addMissing(key: string, other: Log): Promise<number> {
    return this.database.transaction('rw', this.database.log, async () => {
      const mine = logOf(readLogRows(await this.rows(key)).entries)
      const missing = missingFrom(mine, other)
      const isWhole = new Set(mine.marks.filter((mark) => 'session' in mark).map(({ id }) => id))
      const theirs = new Map(other.marks.map((mark) => [mark.id, mark]))
      const entries = missing.map((entry): LogEntry => {
        if ('take' in entry || !hasSession(entry.mark)) return entry
        if ('session' in entry.mark) isWhole.add(entry.mark.id)
        else if (!isWhole.has(entry.mark.from)) {
          // Here its base is stored as changes itself: the mark is stored whole.
          const { from, changes: _, ...head } = entry.mark
          isWhole.add(head.id)
          return { mark: { ...head, session: sessionAsStored(entry.mark, theirs.get(from)) as Session } }
        }
        return entry
      })
      await this.put(key, entries, true)
      return entries.length
    })
  }

  /** The number of the last entry, which is never given again: it tells whether a copy is behind. 0 where there is none. */
  async newest(key: string): Promise<number> {
    return Math.max(0, ...(await this.database.log.where('key').equals(key).reverse().limit(1).primaryKeys()))
  }

  /** What a session that goes on under another key takes with it, also what cannot be read. */
  async copy(from: string, to: string): Promise<void> {
    const rows = await this.database.log.where('key').equals(from).sortBy('number')
    await this.database.log.bulkAdd(rows.map(({ number: _, ...row }) => ({ ...row, key: to })))
  }

  /** Calls back with a session’s log, and from then on with what this or another tab adds to it. */
  watch(key: string, changed: (added: LogReading) => void, failed: (error: unknown) => void): () => void {
    let last = 0
    const subscription = liveQuery(() => this.read(key, last)).subscribe((reading) => {
      last = Math.max(last, reading.last)
      changed(reading)
    }, failed)
    return () => subscription.unsubscribe()
  }

  private async put(key: string, entries: readonly LogEntry[], areNew: boolean): Promise<void> {
    for (const slice of chunk(entries, SLICE))
      await this.database.log.bulkAdd(slice.map((entry) => logRow(key, entry, areNew)))
  }

  private async refuseWhereFull(key: string, added: readonly NewLogEntry[]): Promise<void> {
    const count = (begins: 'mark' | 'take') => this.database.log.where({ key, begins }).count()
    const full = fullLog({
      marks: added.some((entry) => 'mark' in entry) ? await count('mark') : 0,
      takes: added.some((entry) => 'take' in entry) ? await count('take') : 0,
    })
    if (full) throw new LogFullError(full)
  }

  private async lastWhole(key: string): Promise<Mark | null> {
    const row: LogRow | undefined = await this.database.log.where({ key, whole: 1 }).last()
    return wholeMark(row)
  }

  /** The number that was asked for, or the next one where a take has it already. */
  private async freeNumber(key: string, wanted: number): Promise<number> {
    const { log } = this.database
    if ((await log.where({ key, take: wanted }).count()) === 0) return wanted
    const last = await log.where('[key+take]').between([key], [key, []]).last()
    return (last?.take ?? 0) + 1
  }
}
