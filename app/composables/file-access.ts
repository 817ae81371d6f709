import { fileOpen, fileSave } from 'browser-fs-access'

/**
 * Files chosen and saved by the person, through a dialog. Closing it is an answer, not a failure. It comes with the first load: export
 * works always.
 */

interface Kind {
  extensions: string[]
  description?: string
  /** Dialogs of one id begin where the last one was. */
  id: string
}

export async function saveFile(content: BlobPart, type: string, fileName: string, id: string): Promise<void> {
  await unlessAborted(
    fileSave(new Blob([content], { type }), { fileName, extensions: [fileName.slice(fileName.lastIndexOf('.'))], id }),
  )
}

/** `null` where none was chosen. */
export async function chooseFile(kind: Kind): Promise<File | null> {
  return (await unlessAborted(fileOpen(kind))) ?? null
}

async function unlessAborted<T>(dialog: Promise<T>): Promise<T | undefined> {
  try {
    return await dialog
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') return undefined
    throw error
  }
}
