import { liveQuery } from 'dexie'
import type { LogEntry } from '#core/log/entries'
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
