/**
 * The browser's own file store (OPFS). Browsers without it, and pages that are not served securely, have none: every folder is `null`
 * there.
 */
export async function folderOf(name: string): Promise<FileSystemDirectoryHandle | null> {
  if (!globalThis.navigator?.storage?.getDirectory) return null
  const root = await navigator.storage.getDirectory()
  return root.getDirectoryHandle(name, { create: true })
}

export async function fileOf(folderName: string, name: string): Promise<FileSystemFileHandle | null> {
  const folder = await folderOf(folderName)
  if (folder)
    for await (const [each, handle] of folder.entries())
      if (each === name && handle.kind === 'file') return handle as FileSystemFileHandle
  return null
}

/** The old content stays until the stream is closed: a crash leaves one or the other. */
export async function writeTo(folder: FileSystemDirectoryHandle, name: string, text: string): Promise<void> {
  const stream = await (await folder.getFileHandle(name, { create: true })).createWritable()
  await stream.write(text)
  await stream.close()
}

export async function appendTo(folder: FileSystemDirectoryHandle, name: string, text: string): Promise<void> {
  const handle = await folder.getFileHandle(name, { create: true })
  const { size } = await handle.getFile()
  const stream = await handle.createWritable({ keepExistingData: true })
  await stream.write({ type: 'write', position: size, data: text })
  await stream.close()
}

/** A file that is replaced while it is read, by another tab, is not found for a moment: the new one is read then. */
export async function textOf(handle: FileSystemFileHandle): Promise<string> {
  const read = async () => (await handle.getFile()).text()
  try {
    return await read()
  } catch (error) {
    if (error instanceof DOMException && error.name === 'NotFoundError') return read()
    throw error
  }
}

/** The JSON in a file. */
export const contentOf = async (handle: FileSystemFileHandle): Promise<unknown> => jsonOrNull(await textOf(handle))

/** `null` where a crash cut the text short; the database is asked first anyway. */
export function jsonOrNull(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch (error) {
    if (error instanceof SyntaxError) return null
    throw error
  }
}
