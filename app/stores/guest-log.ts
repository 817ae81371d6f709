import type { LogEntry } from '#core/log/entries'
import { readLogEntry } from '#core/log/read-entry'
import type { LogReading, NewLogEntry } from '~/persistence'

/** What became of entries that were sent: `undefined` where nobody is there to take them. */
type Sent = Promise<string | null | undefined>

/** An entry that the opener did not take; the message says why. */
class LogRefusedError extends Error {
  override readonly name = 'LogFullError'
}

const read = (entries: LogEntry[]): LogReading => ({ entries, aside: [], last: 0 })

/** The log of a session of another device: its entries come from there, and what is made here goes there. */
export class GuestLog {
  private entries: LogEntry[] = []
  private waiting: NewLogEntry[] = []
  private readonly watching = new Set<(added: LogReading) => void>()
  /** Sends entries to the opener. */
  send: (entries: NewLogEntry[]) => Sent = async () => undefined

  /** Entries of the opener’s log; what is no entry is left out and counted by the caller. */
  receive(raw: unknown[]): number {
    const entries = raw.map(readLogEntry).filter((entry) => entry !== null)
    this.put(entries)
    return raw.length - entries.length
  }

  private put(entries: LogEntry[]): void {
    this.entries.push(...entries)
    for (const each of this.watching) each(read(entries))
  }

  get isUnsent(): boolean {
    return this.waiting.length > 0
  }

  async list(): Promise<LogEntry[]> {
    return [...this.entries]
  }

  watch(changed: (added: LogReading) => void): () => void {
    this.watching.add(changed)
    changed(read([...this.entries]))
    return () => void this.watching.delete(changed)
  }

  /** @throws LogRefusedError */
  async add(entries: readonly NewLogEntry[]): Promise<LogEntry[]> {
    const why = await this.send([...entries])
    if (typeof why === 'string') throw new LogRefusedError(why)
    if (why === null) return []
    // Not connected: it stands here, and goes there later.
    this.waiting.push(...entries)
    this.put([...entries])
    return []
  }

  /** Connected again: what waits is sent. */
  async flush(): Promise<string | null> {
    if (this.waiting.length === 0) return null
    const { waiting } = this
    const why = await this.send(waiting)
    if (why === undefined) return null
    this.waiting = this.waiting.filter((entry) => !waiting.includes(entry))
    return why
  }
}

/** Of the session of another device that is open in this tab. */
export const guestLog = new GuestLog()
