import type { Session } from '#core/session'
import { readSession } from '#core/session'

/** The newest state of a session, as it is kept a second time, apart from the database. */
export interface SecondCopy {
  key: string
  savedAt: number
  session: Session
}

const FOLDER = 'second-copies'

/**
 * A second copy of each session's newest state, in the browser's own file store (OPFS), from which it comes back when the
 * database is damaged or gone. Browsers without that store, and pages that are not served securely, have none.
 */
export class SecondCopies {
  async keep(copy: SecondCopy): Promise<void> {
    const folder = await this.folder()
    if (!folder) return
    const file = await folder.getFileHandle(`${copy.key}.json`, { create: true })
    // The old content stays until the stream is closed: a crash leaves one or the other.
    const stream = await file.createWritable()
    await stream.write(JSON.stringify(copy))
    await stream.close()
  }

  async read(key: string): Promise<SecondCopy | null> {
    const folder = await this.folder()
    if (!folder) return null
    for await (const [name, handle] of folder.entries()) if (name === `${key}.json`) return soundCopy(handle)
    return null
  }

  async list(): Promise<SecondCopy[]> {
    const folder = await this.folder()
    const copies: SecondCopy[] = []
    if (!folder) return copies
    for await (const handle of folder.values()) {
      const copy = await soundCopy(handle)
      if (copy) copies.push(copy)
    }
    return copies
  }

  async drop(keys: readonly string[]): Promise<void> {
    const folder = await this.folder()
    if (!folder) return
    for await (const name of folder.keys())
      if (keys.some((key) => name === `${key}.json`)) await folder.removeEntry(name)
  }

  private async folder(): Promise<FileSystemDirectoryHandle | null> {
    if (!globalThis.navigator?.storage?.getDirectory) return null
    const root = await navigator.storage.getDirectory()
    return root.getDirectoryHandle(FOLDER, { create: true })
  }
}

async function soundCopy(handle: FileSystemHandle): Promise<SecondCopy | null> {
  if (handle.kind !== 'file') return null
  const text = await (await (handle as FileSystemFileHandle).getFile()).text()
  let found: Partial<SecondCopy>
  try {
    found = JSON.parse(text)
  } catch (error) {
    if (error instanceof SyntaxError) return null // cut short; the database is asked first anyway
    throw error
  }
  const reading = readSession(found.session)
  if (!reading.ok || typeof found.key !== 'string') return null
  return { key: found.key, savedAt: Number(found.savedAt) || 0, session: reading.session }
}
