import { onScopeDispose, ref, shallowRef } from 'vue'
import type { LiveSnapshot } from '#core/measure/live/live-meter'
import type { Performance, Playing } from '#core/render/performer'
import type { LiveDevice, LiveEvent, OpenedInput } from '~/audio/live-input'
import { LiveInput, NoInput, liveDevices, onDevices } from '~/audio/live-input'
import type { GaugeMessage, GaugeTask } from '~/workers/gauge.worker'

/** A moment of the river. */
export interface GaugeColumn {
  peak: number | null
  average: number | null
}

/** How far back the river flows, in snapshots: half a minute of twenty a second. */
export const COLUMNS = 600

/** Frames that do not come for so long are told, ms. */
const STALLED = 1500

export type GaugeSource = 'none' | 'device' | 'simulated'

const TOLD: Partial<Record<LiveEvent, string>> = {
  'gone':
    'The input is gone: it was unplugged, or its driver stopped. The readings are kept. Plug it in again; the gauge goes on by itself.',
  'suspended': 'The browser paused the gauge because its tab is hidden. The readings are kept.',
  'muted': 'This input gives no sound: check for a mute switch, or another program that uses it.',
  'rate-changed':
    'The sample rate of the input was changed elsewhere. The gauge was restarted with it; play the passage again.',
}

/** The live gauge: an input of this computer, or a simulated performer, measured as it comes. Everything is let go with the place. */
export function useGauge() {
  const source = ref<GaugeSource>('none')
  const opened = shallowRef<OpenedInput | null>(null)
  const snapshot = shallowRef<LiveSnapshot | null>(null)
  const devices = shallowRef<LiveDevice[]>([])
  const device = ref<string | null>(null)
  const channels = ref<readonly number[]>([0])
  const trouble = ref<string | null>(null)
  const opening = ref(false)
  const asleep = ref(false)
  /** The last half minute; replaced from the oldest on, so not watched: `snapshot` tells when to draw. */
  const river: GaugeColumn[] = []
  let worker: Worker | null = null
  let input: LiveInput | null = null
  let turn = 0
  let heard = 0
  const recorded = { resolve: null as ((wav: { channels: Float32Array[]; sampleRate: number }) => void) | null }

  const send = (task: GaugeTask, handed: Transferable[] = []) => running().postMessage(task, handed)
  function running(): Worker {
    if (worker) return worker
    worker = new Worker(new URL('../workers/gauge.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<GaugeMessage>) => {
      if ('recorded' in data) recorded.resolve?.({ channels: data.recorded, sampleRate: data.sampleRate })
      else if (source.value !== 'none') show(data.snapshot)
    }
    worker.onerror = () => {
      trouble.value = 'Measuring stopped unexpectedly. The readings are kept; open the input again.'
      void close()
    }
    return worker
  }

  function show(next: LiveSnapshot) {
    heard = Date.now()
    river.push(next.now)
    if (river.length > COLUMNS) river.shift()
    snapshot.value = next
  }

  /** @returns whether it is open; where not, `trouble` says why */
  async function open(chosen: string | null = device.value): Promise<boolean> {
    const mine = ++turn
    await close()
    trouble.value = null
    opening.value = true
    const { port1, port2 } = new MessageChannel()
    try {
      const next = await LiveInput.open(chosen, port1, (event) => void hear(event, chosen))
      if (mine !== turn) {
        await next.close()
        return false
      }
      input = next
      opened.value = next.opened
      device.value = chosen
      channels.value = channels.value.every((each) => each < next.opened.channels) ? channels.value : [0]
      begin('device')
      send({ begin: { sampleRate: next.opened.sampleRate, channels: [...channels.value], frames: port2 } }, [port2])
      devices.value = await liveDevices()
      return true
    } catch (error) {
      if (mine === turn)
        trouble.value =
          error instanceof NoInput ? error.message : 'The input cannot be opened here. Readings can be typed.'
      return false
    } finally {
      if (mine === turn) opening.value = false
    }
  }

  async function hear(event: LiveEvent, chosen: string | null) {
    asleep.value = event === 'suspended'
    trouble.value = TOLD[event] ?? null
    if (event === 'gone') await close({ waiting: chosen })
    if (event === 'rate-changed') {
      const told = trouble.value
      if (await open(chosen)) trouble.value = told
    }
  }

  /** The device that is waited for, after it went. */
  let waiting: { device: string | null } | null = null

  async function close({ waiting: forDevice }: { waiting?: string | null } = {}) {
    waiting = forDevice === undefined ? null : { device: forDevice }
    source.value = 'none'
    opened.value = null
    asleep.value = false
    worker?.postMessage({ stop: true } satisfies GaugeTask)
    const before = input
    input = null
    await before?.close()
  }

  function begin(next: GaugeSource) {
    river.length = 0
    snapshot.value = null
    heard = Date.now()
    source.value = next
  }

  async function simulate(sampleRate: number, performance: Performance, seed: number, playing: Playing) {
    turn++
    await close()
    trouble.value = null
    begin('simulated')
    send({ perform: { sampleRate, performance, seed, playing } })
  }

  const stopDevices = onDevices(() => {
    void liveDevices().then((found) => {
      devices.value = found
      if (waiting && (waiting.device === null || found.some(({ id }) => id === waiting?.device)))
        void open(waiting.device)
    })
  })
  const watching = setInterval(() => {
    if (
      source.value === 'device' &&
      !asleep.value &&
      Date.now() - heard > STALLED &&
      document.visibilityState === 'visible'
    )
      trouble.value = 'No signal from the input. If this continues, open it again.'
  }, STALLED)

  onScopeDispose(() => {
    turn++
    clearInterval(watching)
    stopDevices()
    void close()
    worker?.terminate()
    worker = null
  })

  return {
    source,
    opened,
    snapshot,
    river,
    devices,
    device,
    channels,
    trouble,
    opening,
    asleep,
    open,
    /** Looks which inputs there are. */
    look: async () => {
      devices.value = await liveDevices()
    },
    simulate,
    close: async () => {
      turn++
      await close()
    },
    wake: async () => {
      await input?.resume()
    },
    choose: (next: readonly number[]) => {
      channels.value = next
      river.length = 0
      send({ channels: [...next] })
    },
    setPerformance: (performance: Performance) => send({ performance }),
    setPlaying: (playing: Playing) => send({ playing }),
    startPassage: () => send({ passage: true }),
    record: () => send({ record: true }),
    /** What was recorded since. */
    recorded: () =>
      new Promise<{ channels: Float32Array[]; sampleRate: number }>((resolve) => {
        recorded.resolve = resolve
        send({ recorded: true })
      }),
  }
}
export type LiveGauge = ReturnType<typeof useGauge>
