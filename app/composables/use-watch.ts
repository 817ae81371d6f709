import type { Ref } from 'vue'
import { computed, onScopeDispose, ref, shallowRef, toRaw, watch } from 'vue'
import type { Evaluation } from '#core/evaluation/evaluate-session'
import type { LiveSnapshot } from '#core/measure/live/live-meter'
import type { Playing } from '#core/render/performer'
import type { Session } from '#core/session'
import type { Live } from '#core/shared-session/live'
import { nowOf, roundedSnapshot, saidOf } from '#core/shared-session/live'
import type { WatchReadings } from '#core/watch/inference'
import { offeredTurns } from '#core/watch/inference'
import type { Lane } from '#core/watch/lane'
import { lanesOf } from '#core/watch/lane'
import type { Notice } from '#core/watch/notices'
import type { LaneState } from '#core/watch/state'
import { stateOf } from '#core/watch/state'
import type { Stranger, StrangerFault } from '#core/watch/strangers'
import { performancesOf, putRight, strangersOf } from '#core/watch/strangers'
import { watchVerdict } from '#core/watch/verdict'
import { askForPassage } from '~/stores/second-screen'
import { useSharedLive } from './use-shared-live'
import type { GaugeColumn, GaugeSource } from './use-gauge'
import { COLUMNS } from './use-gauge'
import { useLiveInput } from './use-live-input'
import type { SaysMessage, SaysTask } from '~/workers/watch-says.worker'
import type { Played, WatchMessage, WatchTask } from '~/workers/watch.worker'

/** An input as it is shown: what is planned, what comes in, and what that says. */
export interface WatchedLane {
  lane: Lane
  /** Of the device, from 0. */
  channel: number
  /** Whether the device has that channel. */
  isThere: boolean
  snapshot: LiveSnapshot | null
  river: readonly GaugeColumn[]
  /** Counts up with each new column of it: a reference, so that a drawing follows it and the words around it do not. */
  drawn: Ref<number>
  state: LaneState
  reading: WatchReadings['lanes'][number] | null
  notices: Notice[]
}

/** Figures change with every fourth snapshot, five times a second: nobody reads faster, and drawing alone costs a third. */
const SHOWN_EVERY = 4

/** What is listened to: a device, a file of several channels, simulated performers, or what another device hears. */
export type WatchSource = GaugeSource | 'file' | 'remote'

/** Said to the other devices with every so many snapshots, once a second. */
const SAID_EVERY = 20

/** Whose inputs are watched: a session as it is set, and what is expected of it; `null` while there is none. */
interface Expected {
  session: () => Session | null
  evaluation: () => Evaluation | null
  /** Of an exercise: nobody else sees it. */
  isPractice?: boolean
}

/** All inputs of a session at once, from a device or from simulated performers. Nothing of the sound is kept. */
export function useWatch(expected: Expected) {
  const source = ref<WatchSource>('none')
  /** Channels of the file that is played, and how it ended. */
  const file = ref<{ name: string; channels: number; ended: string | null } | null>(null)
  const snapshots = shallowRef<LiveSnapshot[]>([])
  const readings = shallowRef<WatchReadings | null>(null)
  const notices = shallowRef<Notice[]>([])
  const putAside = ref<ReadonlySet<string>>(new Set())
  /** Where a strip’s cable was said to be by hand. */
  const moved = ref<Record<string, number>>({})
  const strangers = shallowRef<Stranger[]>([])
  let seed = 1
  const playing = ref<Playing>('usual')
  /** Counts up with each snapshot: rivers are drawn anew with it. */
  const drawn = ref(0)
  /** By the device’s channel; replaced from the oldest on, so not watched: `drawn` tells when to draw. */
  let rivers: GaugeColumn[][] = []
  let workers: { measures: Worker; says: Worker } | null = null

  const input = useLiveInput({
    begin: ({ sampleRate, channels }, frames) => {
      begin('device')
      send({ begin: { sampleRate, channels, frames } }, [frames])
    },
    end: () => {
      source.value = 'none'
      workers?.measures.postMessage({ stop: true } satisfies WatchTask)
    },
  })

  const lanes = computed(() => {
    const [session, evaluation] = [expected.session(), expected.evaluation()]
    return session && evaluation ? lanesOf(session, evaluation) : []
  })
  const channelOf = (lane: Lane) => moved.value[lane.strip] ?? lane.channel
  const channelCount = computed(() => {
    if (source.value === 'remote') return remoteChannels.value
    return source.value === 'file' ? (file.value?.channels ?? 0) : (input.opened.value?.channels ?? 0)
  })
  const watched = computed<WatchedLane[]>(() =>
    lanes.value.map((lane) => {
      const channel = channelOf(lane)
      const snapshot = snapshots.value[channel] ?? null
      const reading = readings.value?.lanes.find(({ strip }) => strip === lane.strip) ?? null
      return {
        lane,
        channel,
        isThere: source.value === 'simulated' || channel < channelCount.value,
        snapshot,
        river: rivers[channel] ?? [],
        drawn,
        state: snapshot ? stateOf(lane, snapshot, reading?.inferred.fault ?? false) : 'waiting',
        reading,
        notices: notices.value.filter(({ id, strip }) => strip === lane.strip && !putAside.value.has(id)),
      }
    }),
  )
  const verdict = computed(() => {
    const heard = watched.value.filter(({ snapshot }) => snapshot)
    return watchVerdict(
      heard.map(({ lane }) => lane),
      heard.map(({ snapshot }) => snapshot as LiveSnapshot),
      heard.map(({ state }) => state),
      readings.value,
    )
  })

  const send = (task: WatchTask, handed: Transferable[] = []) => running().measures.postMessage(task, handed)
  const tell = (task: SaysTask, handed: Transferable[] = []) => running().says.postMessage(task, handed)
  /** One that measures, and one that thinks about it: measuring never waits. */
  function running() {
    if (workers) return workers
    const measures = new Worker(new URL('../workers/watch.worker.ts', import.meta.url), { type: 'module' })
    const says = new Worker(new URL('../workers/watch-says.worker.ts', import.meta.url), { type: 'module' })
    measures.onmessage = ({ data }: MessageEvent<WatchMessage>) => {
      if (source.value === 'none') return
      if ('snapshots' in data) show(data.snapshots)
      else if (file.value)
        file.value =
          'channels' in data
            ? { ...file.value, channels: data.channels }
            : { ...file.value, ended: data.ended ?? 'The file has ended.' }
    }
    says.onmessage = ({ data }: MessageEvent<SaysMessage>) => {
      if (source.value === 'none') return
      readings.value = data.readings
      notices.value = data.notices
    }
    measures.onerror = says.onerror = () => {
      void input.close()
      input.trouble.value = 'Measuring stopped unexpectedly. The readings are kept; listen again.'
    }
    workers = { measures, says }
    const { port1, port2 } = new MessageChannel()
    send({ says: port1 }, [port1])
    tell({ asks: port2 }, [port2])
    return workers
  }

  function show(next: LiveSnapshot[]) {
    input.arrived()
    next.forEach(({ now }, c) => {
      const river = (rivers[c] ??= [])
      river.push(now)
      if (river.length > COLUMNS) river.shift()
    })
    drawn.value++
    if (drawn.value % SHOWN_EVERY === 0) snapshots.value = next
    if (!expected.isPractice) shared.tell(() => liveOf(next))
  }

  /** For the other devices: what the rivers need twenty times a second, the figures five times, what is said of them once. */
  const liveOf = (next: readonly LiveSnapshot[]): Live => ({
    inputs: {
      source: source.value as GaugeSource,
      processed: [...(input.opened.value?.processed ?? [])],
      // Performers have no device: each plays on a channel of its own.
      channels: source.value === 'simulated' ? next.length : channelCount.value,
      now: next.map(nowOf),
      ...(drawn.value % SHOWN_EVERY === 0 && { snapshots: next.map(roundedSnapshot) }),
      ...(drawn.value % SAID_EVERY === 0 && { said: saidOf(readings.value, notices.value, moved.value) }),
    },
  })

  /** What the opener’s inputs show, in place of inputs of one’s own. */
  const remoteChannels = ref(0)
  const remoteProcessed = ref<readonly string[]>([])
  function showRemote({ inputs }: Live) {
    if (expected.isPractice || !inputs || inputs.source === 'none') return stopRemote()
    if (source.value === 'none') {
      rivers = []
      forget()
      source.value = 'remote'
    }
    remoteChannels.value = inputs.channels
    remoteProcessed.value = inputs.processed
    inputs.now.forEach((now, c) => {
      const river = (rivers[c] ??= [])
      river.push(now)
      if (river.length > COLUMNS) river.shift()
    })
    drawn.value++
    if (inputs.snapshots) snapshots.value = inputs.snapshots as LiveSnapshot[]
    if (!inputs.said) return
    readings.value = { lanes: inputs.said.lanes, common: inputs.said.common } as WatchReadings
    notices.value = inputs.said.notices as Notice[]
    moved.value = inputs.said.moved
  }
  function stopRemote() {
    if (source.value !== 'remote') return
    source.value = 'none'
    snapshots.value = []
  }
  const shared = useSharedLive({
    source,
    show: showRemote,
    stop: stopRemote,
    restartPassage: () => startPassage(),
    nothing: { inputs: { source: 'none', processed: [], channels: 0, now: [] } },
  })

  function forget() {
    readings.value = null
    notices.value = []
    putAside.value = new Set()
  }
  function begin(next: WatchSource) {
    rivers = []
    snapshots.value = []
    forget()
    source.value = next
    // What was heard of the source before is not of this one.
    tell({ passage: 'of-a-new-source' })
    tellSession()
  }

  function tellSession() {
    const session = expected.session()
    if (!session || source.value === 'none' || source.value === 'remote') return
    tell({ session: toRaw(session), channels: { ...moved.value } })
    if (source.value === 'simulated') send({ retune: played() })
  }
  /** Who is heard on which channel with the gains as they are set. */
  function played(): Played[] {
    const evaluation = expected.evaluation()
    if (!evaluation) return []
    return performancesOf(lanes.value, strangers.value, evaluation).flatMap((performance, i) => {
      const lane = lanes.value[i]
      return performance && lane ? [{ channel: channelOf(lane), performance, seed: seed + 17 * i }] : []
    })
  }
  watch(expected.session, tellSession)
  // Peaks are of the gains as they were: what is turned is heard anew.
  watch(
    () => lanes.value.map(({ gain }) => gain).join('|'),
    () => {
      // Those of another device begin anew there.
      if (source.value !== 'none' && source.value !== 'remote') startPassage()
    },
  )

  async function simulate(chosen: number, faults: readonly StrangerFault[]) {
    await input.close()
    input.trouble.value = null
    seed = chosen
    strangers.value = strangersOf(lanes.value, seed, faults)
    begin('simulated')
    const channels = Math.max(1, ...lanes.value.map((lane) => channelOf(lane) + 1))
    const sampleRate = expected.session()?.system.sampleRate ?? 48_000
    send({ perform: { sampleRate, channels, played: played(), playing: playing.value } })
  }

  async function play(chosen: File) {
    await input.close()
    input.trouble.value = null
    file.value = { name: chosen.name, channels: 0, ended: null }
    begin('file')
    send({ file: chosen })
  }

  /**
   * Peaks begin anew: what was turned, or put right, is heard from here on. A recording follows no gain, and whoever plays otherwise does
   * not either: what was heard of them before is then compared with nothing.
   */
  function startPassage(plays: 'as-before' | 'otherwise' = 'as-before') {
    if (source.value === 'remote') return askForPassage.value?.()
    forget()
    send({ passage: true })
    tell({ passage: plays === 'otherwise' || source.value === 'file' ? 'of-a-new-source' : 'again' })
  }

  onScopeDispose(() => {
    workers?.measures.terminate()
    workers?.says.terminate()
    workers = null
  })

  return {
    ...input,
    source,
    lanes,
    watched,
    readings,
    verdict,
    strangers,
    playing,
    simulate,
    startPassage: () => startPassage(),
    turns: computed(() => (readings.value ? offeredTurns(readings.value) : [])),
    putAside: (id: string) => {
      putAside.value = new Set([...putAside.value, id])
    },
    moveTo: (strip: string, channel: number) => {
      moved.value = { ...moved.value, [strip]: channel }
      readings.value = null
      tellSession()
    },
    file,
    channelCount,
    /** What the browser could not switch off, here or at the device that listens. */
    processed: computed(() =>
      source.value === 'remote' ? remoteProcessed.value : (input.opened.value?.processed ?? []),
    ),
    playFile: play,
    play: (next: Playing) => {
      playing.value = next
      send({ playing: next })
      startPassage('otherwise')
    },
    /** What is wrong with the cables, pads or microphones of simulated performers, put right as a hand would. @returns whose it was */
    putRight: (fault: StrangerFault): string[] => {
      const wrong = strangers.value.filter((each) => each.fault === fault).map(({ strip }) => strip)
      strangers.value = putRight(strangers.value, fault)
      send({ retune: played() })
      startPassage('otherwise')
      return lanes.value.filter(({ strip }) => wrong.includes(strip)).map(({ name }) => name)
    },
  }
}
