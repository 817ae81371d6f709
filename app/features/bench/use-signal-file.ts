import { onScopeDispose, ref } from 'vue'
import type { SignalMessage, SignalTask } from '~/workers/signal.worker'
import { saveFile } from '~/composables/file-access'

/** Test signals as files: made in a worker, since a long one takes seconds, and saved where the person says. */
export function useSignalFile() {
  const making = ref(false)
  const trouble = ref<string | null>(null)
  let worker: Worker | null = null

  function stop() {
    worker?.terminate()
    worker = null
    making.value = false
  }
  const made = (task: SignalTask) =>
    new Promise<SignalMessage>((resolve) => {
      worker = new Worker(new URL('../../workers/signal.worker.ts', import.meta.url), { type: 'module' })
      worker.onmessage = ({ data }: MessageEvent<SignalMessage>) => resolve(data)
      worker.onerror = () => resolve({ failed: 'it stopped unexpectedly' })
      worker.postMessage(task)
    })
  async function save(task: SignalTask) {
    stop()
    making.value = true
    trouble.value = null
    const message = await made(task)
    stop()
    if ('failed' in message) trouble.value = `The signal could not be made (${message.failed}). Try a shorter one.`
    else
      await saveFile(message.bytes, 'audio/wav', `remetra-${task.signal.kind}-${task.sampleRate}.wav`, 'remetra-signal')
  }
  onScopeDispose(stop)
  return { making, trouble, save }
}
