import type { LevelsResult } from '#core/measure/levels/measure-levels'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import type { LoopbackResult } from '#core/measure/loopback-meter'
import { LoopbackMeter } from '#core/measure/loopback-meter'

export type MeasureTask = { kind: 'levels', file: Blob } | { kind: 'loopback', file: Blob, reference: number, returned: number }
export type MeasureMessage =
  | { progress: number }
  | { kind: 'levels', result: LevelsResult }
  | { kind: 'loopback', result: LoopbackResult }
  | { failed: string }

/** Reads the file piece by piece, so that it is never whole in memory, and tells how far it is. */
async function measure(task: MeasureTask): Promise<MeasureMessage> {
  const meter = task.kind === 'levels' ? new LevelsMeter() : new LoopbackMeter(task.reference, task.returned)
  const reader = task.file.stream().getReader()
  let read = 0
  for (;;) {
    const { done, value } = await reader.read()
    if (done) break
    meter.push(value)
    read += value.length
    postMessage({ progress: read / task.file.size } satisfies MeasureMessage)
  }
  return meter instanceof LevelsMeter ? { kind: 'levels', result: meter.end() } : { kind: 'loopback', result: meter.end() }
}

self.onmessage = async ({ data }: MessageEvent<MeasureTask>) => {
  try {
    postMessage(await measure(data))
  } catch (error) {
    postMessage({ failed: error instanceof Error ? error.message : 'unknown reason' } satisfies MeasureMessage)
  }
}
