import { onScopeDispose, ref } from 'vue'
import type { Hearing } from '#core/render/hearing'
import { BY_EAR } from '#core/render/to-ears'
import type { RenderMessage, RenderTask } from '~/workers/render.worker'
import { Player } from '~/audio/player'

/** What is to be heard; a recording is read by the player first. Sessions have to be plain, not reactive: they go into a worker. */
type Prepare = (player: Player) => readonly Hearing[] | Promise<readonly Hearing[]>

/** Plays sounds one after the other, made in a worker and brought to a level that is safe. Whatever is asked last is played. */
export function useInTurn() {
  const player = new Player()
  /** Which one sounds now; `null` for none. */
  const playing = ref<number | null>(null)
  const making = ref(false)
  const trouble = ref<string | null>(null)
  let turn = 0
  let worker: Worker | null = null

  function made(task: RenderTask): Promise<Float64Array[][]> {
    worker?.terminate()
    worker = new Worker(new URL('../workers/render.worker.ts', import.meta.url), { type: 'module' })
    const own = worker
    return new Promise((resolve, reject) => {
      own.onmessage = ({ data }: MessageEvent<RenderMessage>) =>
        'sounds' in data ? resolve(data.sounds) : reject(new Error(data.failed))
      own.onerror = () => reject(new Error('the worker could not be started'))
      own.postMessage(task)
    })
  }

  async function hear(prepare: Prepare, level: number = BY_EAR.starts) {
    const mine = ++turn
    player.stop()
    trouble.value = null
    making.value = true
    try {
      const { sampleRate } = player
      const sounds = await made({ hearings: await prepare(player), sampleRate, level })
      making.value = false
      for (const [i, channels] of sounds.entries()) {
        if (mine !== turn) return
        playing.value = i
        await player.play(channels)
      }
    } catch (error) {
      if (mine === turn)
        trouble.value = `This cannot be played here (${error instanceof Error ? error.message : 'unknown reason'}). Check that the browser may play sound, and try another recording.`
    } finally {
      if (mine === turn) stop()
    }
  }
  function stop() {
    turn++
    worker?.terminate()
    worker = null
    player.stop()
    playing.value = null
    making.value = false
  }
  onScopeDispose(() => {
    stop()
    void player.close()
  })
  return { playing, making, trouble, hear, stop }
}
