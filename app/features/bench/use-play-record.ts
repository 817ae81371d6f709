import { onScopeDispose, ref } from 'vue'
import type { Signal } from '#core/signals/signal'
import { makeSignal } from '#core/signals/signal'
import { writeWav } from '#core/signals/write-wav'
import { formatShort } from '#core/units'
import type { LiveDevice } from '~/audio/live-input'
import { liveOutputs } from '~/audio/live-input'
import { SignalPlayer } from '~/audio/signal-player'
import { useGauge } from '~/composables/use-gauge'

/** What is still to come when the signal has ended, s: the way out and in again. */
const TAIL = 0.7
/** Where nothing is played, so long is recorded, s. */
const SILENT = 10

/** A test signal played, and recorded at the same time, through the browser; the recording comes out as a file like any other. */
export function usePlayRecord() {
  const gauge = useGauge()
  const player = new SignalPlayer()
  const outputs = ref<LiveDevice[]>([])
  const output = ref<string | null>(null)
  const state = ref<'idle' | 'opening' | 'rising' | 'playing' | 'recording'>('idle')
  const trouble = ref<string | null>(null)
  const told = ref<string | null>(null)
  let turn = 0

  const look = async () => {
    await gauge.look()
    outputs.value = await liveOutputs()
  }

  /** Only plays, where what is measured is read off another meter. */
  async function play(signal: Signal): Promise<void> {
    const mine = ++turn
    trouble.value = told.value = null
    state.value = 'rising'
    try {
      await player.play(
        (rate) => makeSignal(signal, rate),
        output.value,
        () => {
          if (mine === turn) state.value = 'playing'
        },
      )
    } catch (error) {
      if (mine === turn) trouble.value = notPlayed(error)
    } finally {
      if (mine === turn) await stop()
    }
  }

  /** @returns the recording; `null` where there is none, which is told */
  async function run(signal: Signal | null, sampleRate: number, name: string): Promise<File | null> {
    const mine = ++turn
    trouble.value = told.value = null
    state.value = 'opening'
    try {
      if (!(await gauge.open(gauge.device.value))) {
        trouble.value = gauge.trouble.value
        return null
      }
      const processed = gauge.opened.value?.processed ?? []
      if (processed.length > 0) {
        trouble.value = `Not recorded: the browser could not switch off ${processed.join(' and ')}, and a recording would measure that. Record with your host, and choose the file.`
        return null
      }
      if (signal) {
        state.value = 'rising'
        await player.play(
          (rate) => makeSignal(signal, rate),
          output.value,
          () => {
            if (mine !== turn) return
            state.value = 'recording'
            gauge.record()
          },
        )
        await pause(TAIL)
      } else {
        state.value = 'recording'
        gauge.record()
        await pause(SILENT)
      }
      if (mine !== turn) return null
      return await recordedFile(sampleRate, name)
    } catch (error) {
      if (mine === turn) trouble.value = notPlayed(error)
      return null
    } finally {
      if (mine === turn) await stop()
    }
  }

  async function recordedFile(wanted: number, name: string): Promise<File | null> {
    const { channels, sampleRate } = await gauge.recorded()
    const frames = channels[0]?.length ?? 0
    if (frames === 0) {
      trouble.value = 'No signal came in during playback. Check the input, its cable and its gain.'
      return null
    }
    told.value =
      sampleRate === wanted
        ? null
        : `Recorded at ${formatShort(sampleRate / 1000)} kHz, as the browser has the input; the session is at ${formatShort(wanted / 1000)} kHz.`
    const wav = writeWav(
      channels.map((each) => Float64Array.from(each)),
      sampleRate,
      'float',
    )
    return new File([wav], name, { type: 'audio/wav' })
  }

  async function stop() {
    turn++
    state.value = 'idle'
    await Promise.all([player.stop(), gauge.close()])
  }
  onScopeDispose(() => void stop())

  return { devices: gauge.devices, device: gauge.device, outputs, output, state, trouble, told, look, play, run, stop }
}

const notPlayed = (error: unknown) =>
  `It could not be played (${error instanceof Error ? error.message : 'unknown reason'}). Choose another output, or save the signal and play it with your host.`
const pause = (seconds: number) => new Promise((resolve) => setTimeout(resolve, 1000 * seconds))
