import type { SessionFileReading } from '#core/files/session-file'
import { latePart } from '~/stores/late-part'
import { WorkerLink } from '~/stores/worker-link'
import type { FileWork } from '~/workers/files.worker'

const reader = new WorkerLink<FileWork>(
  'file reader',
  () => new Worker(new URL('../workers/files.worker.ts', import.meta.url), { type: 'module' }),
)

export const saveBackup = (on: string, keys?: readonly string[]): ReturnType<FileWork['saveBackup']> =>
  reader.ask((remote) => remote.saveBackup(on, keys))
export const aboutSession = (key: string): ReturnType<FileWork['sessionAbout']> =>
  reader.ask((remote) => remote.sessionAbout(key))
export const restoreBackup = (file: Blob): ReturnType<FileWork['restoreBackup']> =>
  reader.ask((remote) => remote.restoreBackup(file))

/** Reads a session file beside the page; `null` where the reader does not come, which is told. */
export const readSessionFile = (file: Blob): Promise<SessionFileReading | null> =>
  latePart(() => reader.ask<SessionFileReading>((remote) => remote.readSessionFile(file)))
