import { entriesOf, logOf } from '#core/log/entries'
import type { Log, Session } from '#core/session'
import { readSession } from '#core/session'
import { readLog } from '#core/session/read-log'
import type { LogRepository } from './log-repository'

/** The newest state of a session, as it is kept a second time, apart from the database. */
export interface SecondCopy {
  key: string
  savedAt: number
  session: Session
}

const FOLDER = 'second-copies'
const LOGS = 'second-logs'

/**
 * A second copy of each session's newest state and of its log, in the browser's own file store (OPFS), from which they come back
 * when the database is damaged or gone. Browsers without that store, and pages that are not served securely, have none.
 */
export class SecondCopies {
  /** The last entry of a log that its copy has: a log is written again only where it grew. */
  private readonly logged = new Map<string, number>()

  constructor(private readonly logs: LogRepository) {}

  async keep(copy: SecondCopy): Promise<void> {
    const folder = await folderOf(FOLDER)
    if (!folder) return
    await write(folder, copy.key, copy)
    await this.keepLog(copy.key)
  }

  private async keepLog(key: string): Promise<void> {
    const newest = await this.logs.newest(key)
    if (newest === 0 || newest === this.logged.get(key)) return
    const folder = await folderOf(LOGS)
    if (!folder) return
    const entries = await this.logs.list(key)
    // A log that the database lost meanwhile stays in its copy.
    const known = await this.copiedLog(key)
    await write(folder, key, logOf([...(known ? entriesOf(known) : []), ...entries]))
    this.logged.set(key, newest)
  }

  async read(key: string): Promise<SecondCopy | null> {
    const handle = await fileOf(FOLDER, key)
    return handle && soundCopy(handle)
  }

  /** Adds to a session's log what only its copy has. */
  async bringLogBack(key: string): Promise<void> {
    const log = await this.copiedLog(key)
    if (log) await this.logs.addMissing(key, log)
  }

  /** `null` where there is none that can be read. */
  private async copiedLog(key: string): Promise<Log | null> {
    const handle = await fileOf(LOGS, key)
    const reading = handle && readLog(await contentOf(handle))
    return reading?.ok ? reading.log : null
  }

  async list(): Promise<SecondCopy[]> {
    const folder = await folderOf(FOLDER)
    const copies: SecondCopy[] = []
    if (!folder) return copies
    for await (const handle of folder.values()) {
      const copy = await soundCopy(handle)
      if (copy) copies.push(copy)
    }
    return copies
  }

  async drop(keys: readonly string[]): Promise<void> {
    for (const name of [FOLDER, LOGS]) {
      const folder = await folderOf(name)
      if (!folder) return
      for await (const file of folder.keys())
        if (keys.some((key) => file === fileName(key))) await folder.removeEntry(file)
    }
  }
}

const fileName = (key: string) => `${key}.json`

async function folderOf(name: string): Promise<FileSystemDirectoryHandle | null> {
  if (!globalThis.navigator?.storage?.getDirectory) return null
  const root = await navigator.storage.getDirectory()
  return root.getDirectoryHandle(name, { create: true })
}

async function fileOf(folderName: string, key: string): Promise<FileSystemHandle | null> {
  const folder = await folderOf(folderName)
  if (folder) for await (const [name, handle] of folder.entries()) if (name === fileName(key)) return handle
  return null
}

/** The old content stays until the stream is closed: a crash leaves one or the other. */
async function write(folder: FileSystemDirectoryHandle, key: string, content: object): Promise<void> {
  const stream = await (await folder.getFileHandle(fileName(key), { create: true })).createWritable()
  await stream.write(JSON.stringify(content))
  await stream.close()
}

async function contentOf(handle: FileSystemHandle): Promise<unknown> {
  if (handle.kind !== 'file') return null
  const text = await (await (handle as FileSystemFileHandle).getFile()).text()
  try {
    return JSON.parse(text)
  } catch (error) {
    if (error instanceof SyntaxError) return null // cut short; the database is asked first anyway
    throw error
  }
}

async function soundCopy(handle: FileSystemHandle): Promise<SecondCopy | null> {
  const found = (await contentOf(handle)) as Partial<SecondCopy> | null
  const reading = readSession(found?.session)
  if (!found || !reading.ok || typeof found.key !== 'string') return null
  return { key: found.key, savedAt: Number(found.savedAt) || 0, session: reading.session }
}
