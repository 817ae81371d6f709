import type { LogEntry } from '#core/log/entries'
import { logOf } from '#core/log/entries'
import type { Log } from '#core/session'
import { readLog } from '#core/files/read-log'
import type { LogRepository } from './log-repository'
import { appendTo, contentOf, fileOf, folderOf, jsonOrNull, textOf } from './own-files'

const FOLDER = 'second-logs'

/**
 * The second copy of the logs: a file for each session with an entry on each line, to which what is new is appended. What the
 * database lost meanwhile stays in it.
 */
export class SecondLogs {
  /** The entries in a copy, as their lines, and the last row of the database that was looked at. */
  private readonly copied = new Map<string, { lines: Set<string>; last: number }>()

  constructor(private readonly logs: LogRepository) {}

  async keep(key: string): Promise<void> {
    const known = this.copied.get(key) ?? { lines: new Set(await this.lines(key)), last: 0 }
    const reading = await this.logs.read(key, known.last)
    const fresh = reading.entries.map((entry) => JSON.stringify(entry)).filter((line) => !known.lines.has(line))
    if (fresh.length > 0) {
      const folder = await folderOf(FOLDER)
      if (!folder) return
      // A line that a crash cut short ends where the next ones begin.
      await appendTo(folder, `${key}.jsonl`, `\n${fresh.join('\n')}\n`)
    }
    this.copied.set(key, { lines: new Set([...known.lines, ...fresh]), last: reading.last })
  }

  /** Adds to a session's log what only its copy has. */
  async bringBack(key: string): Promise<void> {
    const log = await this.read(key)
    if (log) await this.logs.addMissing(key, log)
  }

  /** What can be read of a copy; `null` where there is none. */
  private async read(key: string): Promise<Log | null> {
    const entries = (await this.lines(key)).map(jsonOrNull).filter(isEntry)
    return entries.length > 0 ? soundLog(entries) : null
  }

  /** The lines of a copy; one of an earlier version was a single file of JSON. */
  private async lines(key: string): Promise<string[]> {
    const appended = await fileOf(FOLDER, `${key}.jsonl`)
    const lines = appended ? (await textOf(appended)).split('\n').filter((line) => line !== '') : []
    const earlier = await fileOf(FOLDER, `${key}.json`)
    const reading = earlier && readLog(await contentOf(earlier))
    if (!reading?.ok) return lines
    const { marks, takes } = reading.log
    return [
      ...marks.map((mark) => JSON.stringify({ mark })),
      ...takes.map((take) => JSON.stringify({ take })),
      ...lines,
    ]
  }
}

/** The entries that are sound, each by itself: a damaged one does not take the others with it. */
function soundLog(entries: readonly LogEntry[]): Log {
  const { marks, takes } = logOf(entries)
  const sound: Log = { marks: [], takes: [] }
  for (const mark of marks) {
    const base = 'from' in mark ? sound.marks.filter(({ id }) => id === mark.from) : []
    if (readLog({ version: 2, marks: [...base, mark] }).ok) sound.marks.push(mark)
  }
  for (const take of takes) if (readLog({ takes: [take] }).ok) sound.takes.push(take)
  return sound
}

function isEntry(entry: unknown): entry is LogEntry {
  const { mark, take } = (typeof entry === 'object' && entry !== null ? entry : {}) as {
    mark?: unknown
    take?: unknown
  }
  return [mark, take].some((each) => typeof each === 'object' && each !== null && 'id' in each)
}
