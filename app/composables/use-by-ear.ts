import { onScopeDispose, ref } from 'vue'
import type { Performance } from '#core/render/performer'
import { floorByEar } from '#core/render/floor-by-ear'
import { Player } from '~/audio/player'

/** Plays what stands on a strip, one state after the other, at a safe level. */
export function useByEar() {
  const player = new Player()
  const playing = ref<number | null>(null)
  const trouble = ref<string | null>(null)
  let turn = 0

  async function hear(
    states: readonly Pick<Performance, 'average' | 'peak' | 'noise'>[],
    level: number,
    raised: number,
  ) {
    const mine = ++turn
    trouble.value = null
    try {
      for (const [i, state] of states.entries()) {
        if (mine !== turn) return
        playing.value = i
        await player.play(floorByEar(state, player.sampleRate, level, raised))
      }
    } catch (error) {
      trouble.value = `This cannot be played here (${error instanceof Error ? error.message : 'unknown reason'}). Look whether the browser may play sound.`
    } finally {
      if (mine === turn) playing.value = null
    }
  }
  function stop() {
    turn++
    player.stop()
    playing.value = null
  }
  onScopeDispose(() => {
    turn++
    void player.close()
  })
  return { playing, trouble, hear, stop }
}
