import { onScopeDispose, ref, shallowRef } from 'vue'
import type { MeasureMessage, MeasureTask } from '~/workers/measure.worker'

type Answer<K extends MeasureTask['kind']> = Extract<MeasureMessage, { kind: K }>['result']

/** One measurement of a file at a time, in a worker: with progress, and cancelled at once. */
export function useMeasuring<K extends MeasureTask['kind']>() {
  const progress = ref<number | null>(null)
  const trouble = ref<string | null>(null)
  const name = ref('')
  const result = shallowRef<Answer<K> | null>(null)
  let worker: Worker | null = null

  function stop() {
    worker?.terminate()
    worker = null
    progress.value = null
  }
  function start(fileName: string, task: Extract<MeasureTask, { kind: K }>) {
    stop()
    result.value = null
    trouble.value = null
    name.value = fileName
    progress.value = 0
    worker = new Worker(new URL('../workers/measure.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<MeasureMessage>) => {
      if ('progress' in data) {
        progress.value = data.progress
        return
      }
      if ('failed' in data) trouble.value = `The file could not be read to its end (${data.failed}). Try a copy of it.`
      else result.value = data.result as Answer<K>
      stop()
    }
    worker.onerror = () => {
      trouble.value = 'The measuring stopped unexpectedly. Try again; if it stays, try a shorter file.'
      stop()
    }
    worker.postMessage(task)
  }
  onScopeDispose(stop)
  return { progress, trouble, name, result, start, cancel: stop }
}
