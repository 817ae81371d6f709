import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import type { LiveSnapshot } from '#core/measure/live/live-meter'
import type { Performance, Playing } from '#core/render/performer'
import type { Live } from '#core/shared-session/live'
import { roundedSnapshot } from '#core/shared-session/live'
import { askForPassage } from '~/stores/second-screen'
import { useSharedLive } from './use-shared-live'
import type { GaugeMessage, GaugeTask } from '~/workers/gauge.worker'
import { useLiveInput } from './use-live-input'

/** A moment of the river. */
export interface GaugeColumn {
  peak: number | null
  average: number | null
}

/** How far back the river flows, in snapshots: half a minute of twenty a second. */
export const COLUMNS = 600

export type GaugeSource = 'none' | 'device' | 'simulated'
/** An input of this computer, or that of another device that shares its session. */
export type ShownSource = GaugeSource | 'remote'

/**
 * The live gauge: an input of this computer, or a simulated performer, measured as it comes. Everything is let go with the place.
 * @param sharedStrip the strip it stands for, where other devices see it and it shows theirs
 */
export function useGauge(sharedStrip: (() => string | null) | null = null) {
  const source = ref<ShownSource>('none')
  const snapshot = shallowRef<LiveSnapshot | null>(null)
  const channels = ref<readonly number[]>([0])
  /** The last half minute; replaced from the oldest on, so not watched: `snapshot` tells when to draw. */
  const river: GaugeColumn[] = []
  let worker: Worker | null = null
  const recorded = { resolve: null as ((wav: { channels: Float32Array[]; sampleRate: number }) => void) | null }

  const input = useLiveInput({
    begin: (opened, frames) => {
      channels.value = channels.value.every((each) => each < opened.channels) ? channels.value : [0]
      begin('device')
      send({ begin: { sampleRate: opened.sampleRate, channels: [...channels.value], frames } }, [frames])
    },
    end: () => {
      source.value = 'none'
      worker?.postMessage({ stop: true } satisfies GaugeTask)
    },
  })

  const send = (task: GaugeTask, handed: Transferable[] = []) => running().postMessage(task, handed)
  function running(): Worker {
    if (worker) return worker
    worker = new Worker(new URL('../workers/gauge.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<GaugeMessage>) => {
      if ('recorded' in data) recorded.resolve?.({ channels: data.recorded, sampleRate: data.sampleRate })
      else if (source.value !== 'none') show(data.snapshot)
    }
    worker.onerror = () => {
      void input.close()
      input.trouble.value = 'Measuring stopped unexpectedly. The readings are kept; open the input again.'
    }
    return worker
  }

  function show(next: LiveSnapshot) {
    input.arrived()
    river.push(next.now)
    if (river.length > COLUMNS) river.shift()
    snapshot.value = next
    const strip = sharedStrip?.() ?? null
    if (strip)
      shared.tell(() => ({
        gauge: {
          source: source.value as GaugeSource,
          processed: [...(input.opened.value?.processed ?? [])],
          strip,
          snapshot: roundedSnapshot(next),
        },
      }))
  }

  /** The strip that the opener’s gauge hears, where it is another one. */
  const elsewhere = ref<string | null>(null)
  const remoteProcessed = ref<readonly string[]>([])
  /** What the opener’s gauge shows, in place of an input of one’s own. */
  function showRemote({ gauge }: Live) {
    // What is heard of another strip is none of this one’s.
    elsewhere.value = gauge && gauge.source !== 'none' && gauge.strip !== sharedStrip?.() ? gauge.strip : null
    if (!gauge || gauge.source === 'none' || elsewhere.value || !sharedStrip) return stopRemote()
    remoteProcessed.value = gauge.processed
    if (source.value === 'none') begin('remote')
    if (!gauge.snapshot) return
    const next = gauge.snapshot as LiveSnapshot
    river.push(next.now)
    if (river.length > COLUMNS) river.shift()
    snapshot.value = next
  }
  function stopRemote() {
    if (source.value !== 'remote') return
    source.value = 'none'
    snapshot.value = null
  }
  const shared = useSharedLive({
    source,
    show: showRemote,
    stop: stopRemote,
    restartPassage: () => send({ passage: true }),
    nothing: { gauge: { source: 'none', processed: [], strip: null, snapshot: null } },
  })

  function begin(next: ShownSource) {
    river.length = 0
    snapshot.value = null
    source.value = next
  }

  async function simulate(sampleRate: number, performance: Performance, seed: number, playing: Playing) {
    await input.close()
    input.trouble.value = null
    begin('simulated')
    send({ perform: { sampleRate, performance, seed, playing } })
  }

  onScopeDispose(() => {
    worker?.terminate()
    worker = null
  })

  const { opened, devices, device, trouble, opening, asleep, open, close, look, wake } = input
  return {
    source,
    elsewhere,
    processed: computed(() =>
      source.value === 'remote' ? remoteProcessed.value : (input.opened.value?.processed ?? []),
    ),
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
    close,
    look,
    wake,
    simulate,
    choose: (next: readonly number[]) => {
      channels.value = next
      river.length = 0
      send({ channels: [...next] })
    },
    setPerformance: (performance: Performance) => send({ performance }),
    setPlaying: (playing: Playing) => send({ playing }),
    startPassage: () => (source.value === 'remote' ? askForPassage.value?.() : send({ passage: true })),
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
