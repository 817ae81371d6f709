import type { Remote } from 'comlink'
import { wrap } from 'comlink'
import type { SessionFileReading } from '#core/session/session-file'
import { latePart } from '~/stores/late-part'
import type { FileWork } from '~/workers/files.worker'

let worker: Worker | null = null
let work: Remote<FileWork> | null = null

/** The worker that reads and writes files; begun when it is first needed, and anew where it failed to come. */
function fileWork(): Remote<FileWork> {
  if (!work) {
    worker = new Worker(new URL('../workers/files.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('error', forget)
    work = wrap<FileWork>(worker)
  }
  return work
}

function forget() {
  worker?.terminate()
  worker = null
  work = null
}

type Method = keyof FileWork
type Result<M extends Method> = Awaited<ReturnType<FileWork[M]>>

/** Asks the worker; fails where it does not come, since it would never answer. */
export function askFileWork<M extends Method>(method: M, ...given: Parameters<FileWork[M]>): Promise<Result<M>> {
  const ask = fileWork()[method] as unknown as (...all: Parameters<FileWork[M]>) => Promise<Result<M>>
  const dead = new Promise<never>((_, reject) => {
    worker?.addEventListener('error', () => reject(new Error('The file reader stopped.')), { once: true })
  })
  return Promise.race([ask(...given), dead])
}

/** Reads a session file beside the page; `null` where the reader does not come, which is told. */
export const readSessionFile = (file: Blob): Promise<SessionFileReading | null> =>
  latePart(() => askFileWork('readSessionFile', file))
