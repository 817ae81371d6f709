import { liveQuery } from 'dexie'
import type { LogEntry } from '#core/log/entries'
import { logOf, missingFrom } from '#core/log/entries'
import type { Log } from '#core/session'
import type { RemetraDatabase } from './database'

/** The logs of sessions: entries are only ever added, apart from the steps of undo. */
export class LogRepository {
  constructor(private readonly database: RemetraDatabase) {}

  /** In the order in which they were added. */
  async list(key: string): Promise<LogEntry[]> {
    return (await this.database.log.where('key').equals(key).sortBy('number')).map(({ entry }) => entry)
  }

  async add(key: string, entries: readonly LogEntry[]): Promise<void> {
    await this.database.log.bulkAdd(entries.map((entry) => ({ key, entry })))
  }

  /** Adds what of another log this one does not have. @returns how many entries */
  addMissing(key: string, other: Log): Promise<number> {
    return this.database.transaction('rw', this.database.log, async () => {
      const missing = missingFrom(logOf(await this.list(key)), other)
      await this.add(key, missing)
      return missing.length
    })
  }

  /** The number of the last entry, which is never given again: it tells whether a copy is behind. 0 where there is none. */
  async newest(key: string): Promise<number> {
    return Math.max(0, ...(await this.database.log.where('key').equals(key).primaryKeys()))
  }

  /** What a session that goes on under another key takes with it. */
  async copy(from: string, to: string): Promise<void> {
    await this.add(to, await this.list(from))
  }

  /** Calls back with a session’s log, now and whenever this or another tab adds to it. */
  watch(key: string, changed: (entries: LogEntry[]) => void, failed: (error: unknown) => void): () => void {
    const subscription = liveQuery(() => this.list(key)).subscribe(changed, failed)
    return () => subscription.unsubscribe()
  }
}
