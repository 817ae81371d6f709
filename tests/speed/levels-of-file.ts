import { createReadStream } from 'node:fs'
import { LevelsMeter } from '#core/measure/levels/measure-levels'

/** Measures a file as the server does, and says how long it took and the most memory that was in use. */
export async function levelsOfFile(path: string): Promise<{ seconds: number; megabytes: number }> {
  const start = performance.now()
  const meter = new LevelsMeter()
  let most = 0
  let pieces = 0
  for await (const piece of createReadStream(path, { highWaterMark: 2 ** 20 })) {
    meter.push(piece as Uint8Array)
    if (pieces++ % 64 === 0) most = Math.max(most, process.memoryUsage().rss)
  }
  const result = meter.end()
  if (!result.ok) throw new Error(result.fault.message)
  return { seconds: (performance.now() - start) / 1000, megabytes: Math.max(most, process.memoryUsage().rss) / 2 ** 20 }
}
