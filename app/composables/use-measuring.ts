import { onScopeDispose, ref } from 'vue'
import type { Answers, Question } from '#core/measure/question'
import type { MeasureMessage, MeasureTask } from '~/workers/measure.worker'

type Found<Q extends Question> = Extract<Answers[Q['kind']], { ok: true }>

/** One measurement of a recording at a time, in a worker: with progress, and cancelled at once. */
export function useMeasuring() {
  const progress = ref<number | null>(null)
  const trouble = ref<string | null>(null)
  const name = ref('')
  let worker: Worker | null = null
  let give: ((found: null) => void) | null = null

  function stop() {
    worker?.terminate()
    worker = null
    progress.value = null
    give?.(null)
    give = null
  }

  /** What was found; `null` where it was cancelled or went wrong, which is told. */
  function measure<Q extends Question>(
    fileName: string,
    task: MeasureTask & { question: Q },
  ): Promise<Found<Q> | null> {
    stop()
    trouble.value = null
    name.value = fileName
    progress.value = 0
    return new Promise((resolve) => {
      give = resolve
      const end = (found: Found<Q> | null, why: string | null) => {
        trouble.value = why
        give = null
        stop()
        resolve(found)
      }
      worker = new Worker(new URL('../workers/measure.worker.ts', import.meta.url), { type: 'module' })
      worker.onmessage = ({ data }: MessageEvent<MeasureMessage>) => {
        if ('progress' in data) progress.value = data.progress
        else if ('failed' in data)
          end(null, `The file could not be read to its end (${data.failed}). Try a copy of it.`)
        else if (data.answer.ok) end(data.answer as Found<Q>, null)
        else end(null, data.answer.fault.message)
      }
      worker.onerror = () =>
        end(null, 'The measuring stopped unexpectedly. Try again; if it stays, try a shorter file.')
      worker.postMessage(task)
    })
  }
  onScopeDispose(stop)
  return { progress, trouble, name, measure, cancel: stop }
}
