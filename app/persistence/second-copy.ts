import type { Session } from '#core/session'
import { readSession } from '#core/files'
import { isNewer } from './aside'
import type { LogRepository } from './log-repository'
import { contentOf, fileOf, folderOf, writeTo } from './own-files'
import { SecondLogs } from './second-log'

/** The newest state of a session, as it is kept a second time, apart from the database. */
export interface SecondCopy {
  key: string
  savedAt: number
  session: Session
}

const FOLDER = 'second-copies'
const FOLDERS = [FOLDER, 'second-logs']

/**
 * A second copy of each session's newest state and of its log, in the browser's own file store, from which they come back when the
 * database is damaged or gone.
 */
export class SecondCopies {
  private readonly logs: SecondLogs
  /** Sessions whose copy was looked at: one that a newer version wrote is left as it is. */
  private readonly mine = new Map<string, boolean>()

  constructor(logs: LogRepository) {
    this.logs = new SecondLogs(logs)
  }

  async keep(copy: SecondCopy): Promise<void> {
    const folder = await folderOf(FOLDER)
    if (!folder) return
    if (await this.mayWrite(copy.key)) await writeTo(folder, fileName(copy.key), JSON.stringify(copy))
    await this.logs.keep(copy.key)
  }

  private async mayWrite(key: string): Promise<boolean> {
    const known = this.mine.get(key)
    if (known !== undefined) return known
    const handle = await fileOf(FOLDER, fileName(key))
    const found = handle ? ((await contentOf(handle)) as { session?: unknown } | null) : null
    const mine = !isNewer(found?.session)
    this.mine.set(key, mine)
    return mine
  }

  async read(key: string): Promise<SecondCopy | null> {
    const handle = await fileOf(FOLDER, fileName(key))
    return handle && soundCopy(handle)
  }

  bringLogBack(key: string): Promise<void> {
    return this.logs.bringBack(key)
  }

  async list(): Promise<SecondCopy[]> {
    const folder = await folderOf(FOLDER)
    const copies: SecondCopy[] = []
    if (!folder) return copies
    for await (const handle of folder.values()) {
      const copy = handle.kind === 'file' ? await soundCopy(handle as FileSystemFileHandle) : null
      if (copy) copies.push(copy)
    }
    return copies
  }

  async drop(keys: readonly string[]): Promise<void> {
    for (const name of FOLDERS) {
      const folder = await folderOf(name)
      if (!folder) return
      for await (const file of folder.keys())
        if (keys.some((key) => file === fileName(key) || file === `${key}.jsonl`)) await folder.removeEntry(file)
    }
  }
}

const fileName = (key: string) => `${key}.json`

async function soundCopy(handle: FileSystemFileHandle): Promise<SecondCopy | null> {
  const found = (await contentOf(handle)) as Partial<SecondCopy> | null
  const reading = readSession(found?.session)
  if (!found || !reading.ok || typeof found.key !== 'string') return null
  return { key: found.key, savedAt: Number(found.savedAt) || 0, session: reading.session }
}
