import { onScopeDispose, ref } from 'vue'
import { HEAD_BYTES, channelCount } from '#core/measure/channel-count'
import type { LevelsPart } from '#core/measure/levels/measure-levels'
import { joinLevels } from '#core/measure/levels/measure-levels'
import type { Answers, Question } from '#core/measure/question'
import type { MeasureAnswer, MeasureMessage, MeasureTask } from '~/workers/measure.worker'

type Found<Q extends Question> = Extract<Answers[Q['kind']], { ok: true }>

/** Workers that one measurement takes at most, each with its own channels. */
const MOST_WORKERS = 4

/** A recording that could not be measured; the message says why and what to do. */
class Unmeasured extends Error {
  override readonly name = 'Unmeasured'
}

/** One measurement of a recording at a time, in workers: with progress, and cancelled at once. */
export function useMeasuring() {
  const progress = ref<number | null>(null)
  const trouble = ref<string | null>(null)
  const name = ref('')
  let workers: Worker[] = []
  let cancel: (() => void) | null = null

  function stop() {
    for (const worker of workers) worker.terminate()
    workers = []
    progress.value = null
    cancel?.()
    cancel = null
  }

  /** What was found; `null` where it was cancelled or went wrong, which is told. */
  async function measure<Q extends Question>(
    fileName: string,
    task: MeasureTask & { question: Q },
  ): Promise<Found<Q> | null> {
    stop()
    trouble.value = null
    name.value = fileName
    progress.value = 0
    const cancelled = new Promise<null>((resolve) => {
      cancel = () => resolve(null)
    })
    try {
      return await Promise.race([answer(task), cancelled])
    } catch (error) {
      trouble.value =
        error instanceof Unmeasured
          ? error.message
          : `The file could not be read (${error instanceof Error ? error.message : 'unknown reason'}). Try a copy of it.`
      return null
    } finally {
      cancel = null
      stop()
    }
  }

  async function answer<Q extends Question>(task: MeasureTask & { question: Q }): Promise<Found<Q>> {
    const share = task.question.kind === 'levels' && task.recording instanceof Blob ? await sharesOf(task.recording) : 1
    if (share === 1) return (await ask(task, (part) => (progress.value = part))) as Found<Q>
    const parts = Array.from({ length: share }, () => 0)
    const found = await Promise.all(
      parts.map((_, part) =>
        ask({ ...task, question: { kind: 'levels-part', share: { part, of: share } } }, (read) => {
          parts[part] = read
          progress.value = Math.min(...parts)
        }),
      ),
    )
    const report = joinLevels(found.map((each) => (each as { part: LevelsPart }).part) as [LevelsPart, ...LevelsPart[]])
    return { ok: true, report } as unknown as Found<Q>
  }

  /** One worker asked one question. */
  function ask(task: MeasureTask, tell: (read: number) => void): Promise<MeasureAnswer & { ok: true }> {
    return new Promise((resolve, reject) => {
      const worker = new Worker(new URL('../workers/measure.worker.ts', import.meta.url), { type: 'module' })
      workers.push(worker)
      worker.onmessage = ({ data }: MessageEvent<MeasureMessage>) => {
        if ('progress' in data) tell(data.progress)
        else if ('failed' in data)
          reject(new Unmeasured(`The file could not be read to its end (${data.failed}). Try a copy of it.`))
        else if (data.answer.ok) resolve(data.answer)
        else reject(new Unmeasured(data.answer.fault.message))
      }
      worker.onerror = () =>
        reject(new Unmeasured('Measuring stopped unexpectedly. Try again; if it stops again, try a shorter file.'))
      worker.postMessage(task)
    })
  }
  onScopeDispose(stop)
  return { progress, trouble, name, measure, cancel: stop }
}

/** Workers for the levels of a recording: as many as the machine has cores, and no more than there are channels. */
async function sharesOf(recording: Blob): Promise<number> {
  const head = new Uint8Array(await recording.slice(0, HEAD_BYTES).arrayBuffer())
  return Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 1, channelCount(head) ?? 1))
}
