import { closeSync, openSync, readSync } from 'node:fs'
import { open } from 'node:fs/promises'
import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { Worker, isMainThread, parentPort, workerData } from 'node:worker_threads'
import { HEAD_BYTES, channelCount } from '#core/measure/channel-count'
import type { LevelsPart, LevelsPartResult, Share } from '#core/measure/levels/measure-levels'
import { LevelsPartMeter, joinLevels } from '#core/measure/levels/measure-levels'

/** Measures a file's levels as the screen does, its channels shared over the cores; how long it took, and the most memory in use. */
export async function levelsOfFile(path: string): Promise<{ seconds: number; megabytes: number }> {
  const start = performance.now()
  let most = 0
  const watching = setInterval(() => {
    most = Math.max(most, process.memoryUsage().rss)
  }, 50)
  const file = await open(path)
  const { buffer } = await file.read(new Uint8Array(HEAD_BYTES), 0, HEAD_BYTES, 0)
  await file.close()
  const of = Math.min(4, availableParallelism(), channelCount(buffer) ?? 1)
  const parts = await Promise.all(Array.from({ length: of }, (_, part) => inWorker(path, { part, of })))
  joinLevels(parts as [LevelsPart, ...LevelsPart[]])
  clearInterval(watching)
  return { seconds: (performance.now() - start) / 1000, megabytes: Math.max(most, process.memoryUsage().rss) / 2 ** 20 }
}

const inWorker = (path: string, share: Share) =>
  new Promise<LevelsPart>((resolve, reject) => {
    const worker = new Worker(fileURLToPath(import.meta.url), {
      workerData: { path, share },
      execArgv: [],
      resourceLimits: { maxYoungGenerationSizeMb: 8 },
    })
    worker.on('message', (result: LevelsPartResult) =>
      result.ok ? resolve(result.part) : reject(new Error(result.fault.message)),
    )
    worker.on('error', reject)
  })

if (!isMainThread && parentPort) {
  const { path, share } = workerData as { path: string; share: Share }
  const meter = new LevelsPartMeter(share)
  // One piece of memory for all that is read: nothing waits to be collected.
  const file = openSync(path, 'r')
  const piece = new Uint8Array(2 ** 19)
  for (let read = readSync(file, piece); read > 0; read = readSync(file, piece)) meter.push(piece.subarray(0, read))
  closeSync(file)
  parentPort.postMessage(meter.end())
}
