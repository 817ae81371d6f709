import { onScopeDispose, ref, shallowRef } from 'vue'
import { atSafeLevel, heardTwice } from '#core/render/heard-twice'
import { syntheticVoice } from '#core/signals/voice'
import { Player } from '~/audio/player'

/** Seconds of the sound that is played each way. */
const SECONDS = 4

/** Two paths by ear: a synthetic voice, or a recording, with both of them and then with one. */
export function useHearing() {
  const player = new Player()
  const playing = ref<'both' | 'one' | null>(null)
  const recording = shallowRef<File | null>(null)
  const trouble = ref<string | null>(null)
  let turn = 0

  const sound = async () =>
    recording.value ? player.read(recording.value, SECONDS) : syntheticVoice(player.sampleRate, SECONDS)

  async function hear(delayMs: number, difference: number) {
    const mine = ++turn
    trouble.value = null
    try {
      const one = await sound()
      const [both, alone] = atSafeLevel(
        [heardTwice(one, player.sampleRate, delayMs, difference), one],
        player.sampleRate,
      )
      for (const [what, samples] of [
        ['both', both],
        ['one', alone],
      ] as const) {
        if (mine !== turn || !samples) return
        playing.value = what
        await player.play(samples)
      }
    } catch (error) {
      trouble.value = `This cannot be played here (${error instanceof Error ? error.message : 'unknown reason'}). Try another recording, or the synthetic voice.`
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
  return { playing, recording, trouble, hear, stop }
}
