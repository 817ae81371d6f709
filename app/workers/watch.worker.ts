import { LiveMemory } from '#core/measure/live/live-memory'
import type { LiveSnapshot } from '#core/measure/live/live-meter'
import { LiveMeter } from '#core/measure/live/live-meter'
import type { Performance, Playing } from '#core/render/performer'
import { SimulatedPerformer } from '#core/render/performer'
import { INVERTED } from '#core/watch/notices'
import { takeFrames } from './incoming-frames'
import { playFile } from './played-file'
import type { SayTask } from './watch-says.worker'

/** Who plays on which channel of the device, from 0. */
export interface Played {
  channel: number
  performance: Performance
  seed: number
}

/** What the worker that measures all inputs is asked to do. */
export type WatchTask =
  | { says: MessagePort }
  | { begin: { sampleRate: number; channels: number; frames: MessagePort } }
  | { perform: { sampleRate: number; channels: number; played: Played[]; playing: Playing } }
  /** A file of several channels, played as a device would be. */
  | { file: Blob }
  | { retune: Played[] }
  | { playing: Playing }
  | { passage: true }
  | { stop: true }

export type WatchMessage =
  /** By the device’s channel, twenty a second. */
  | { snapshots: LiveSnapshot[] }
  /** What a file that is played is, and how it ended. */
  | { channels: number }
  | { ended: string | null }

/** Snapshots a second. */
const SNAPSHOTS = 20
/** What is said is asked for at most so often, ms. */
const SAYS_EVERY = 1000
/** Listening to ten seconds of a channel rests for so many times as long as it took. */
const RESTS = 10

/** All channels of a device, measured as they come. */
class Watch {
  private readonly meters: LiveMeter[]
  private readonly memory: LiveMemory
  private scratch: Float64Array[] = []
  private sinceShown = 0
  private lastAsked = 0

  constructor(
    private readonly sampleRate: number,
    channels: number,
  ) {
    this.meters = Array.from({ length: channels }, () => new LiveMeter(sampleRate, 1))
    this.memory = new LiveMemory(sampleRate, channels)
  }

  take(blocks: readonly Float32Array[]): void {
    const samples = this.meters.map((_, c) => this.widened(blocks[c], c, blocks[0]?.length ?? 0))
    this.meters.forEach((meter, c) => meter.frames([samples[c] as Float64Array]))
    this.memory.frames(samples)
    this.sinceShown += blocks[0]?.length ?? 0
    if (this.sinceShown * SNAPSHOTS < this.sampleRate) return
    this.sinceShown = 0
    const snapshots = this.meters.map((meter) => meter.snapshot())
    postMessage({ snapshots } satisfies WatchMessage)
    this.askForWords(snapshots)
  }

  /** As the meters take it; one array for each channel serves for ever. */
  private widened(block: Float32Array | undefined, c: number, length: number): Float64Array {
    const known = this.scratch[c]
    const into = known?.length === length ? known : (this.scratch[c] = new Float64Array(length))
    if (block) into.set(block)
    return into
  }

  /** Only when the last words came back: whoever is slow is not flooded. */
  private askForWords(snapshots: LiveSnapshot[]): void {
    if (!says || isSaying || performance.now() - this.lastAsked < SAYS_EVERY) return
    this.lastAsked = performance.now()
    isSaying = true
    const heard = this.lastAsked >= listensAgain ? this.memory.hand() : null
    if (heard) listenedFrom = this.lastAsked
    const task: SayTask = {
      snapshots,
      alike: this.memory.alike(INVERTED),
      ...(heard && { heard: { ...heard, sampleRate: this.sampleRate } }),
    }
    says.postMessage(task, heard ? [heard.samples.buffer] : [])
  }

  startPassage(): void {
    for (const meter of this.meters) meter.startPassage()
    this.memory.forget()
  }
}

let watch: Watch | null = null
let says: MessagePort | null = null
let isSaying = false
/** When the last ten seconds were handed over, and from when on others may be, ms. */
let [listenedFrom, listensAgain] = [0, 0]
let frames: MessagePort | null = null
let stopFile: (() => void) | null = null
let playing: ReturnType<typeof setInterval> | undefined
let performers = new Map<number, SimulatedPerformer>()

function stop() {
  clearInterval(playing)
  stopFile?.()
  stopFile = null
  frames?.close()
  frames = null
  performers = new Map()
  watch = null
}

function listen({ sampleRate, channels, frames: port }: Extract<WatchTask, { begin: unknown }>['begin']) {
  stop()
  const own = (watch = new Watch(sampleRate, channels))
  frames = port
  takeFrames(port, (blocks) => own.take(blocks))
}

function play(file: Blob) {
  stop()
  const post = (message: WatchMessage) => postMessage(message)
  stopFile = playFile(file, {
    begin: (sampleRate, channels) => {
      watch = new Watch(sampleRate, channels)
      post({ channels })
    },
    frames: (blocks) => watch?.take(blocks),
    end: (problem) => post({ ended: problem }),
  })
}

/** Everybody plays at once, in real time by the clock: what a late timer missed is made up, up to a second of it. */
function perform({ sampleRate, channels, played, playing: how }: Extract<WatchTask, { perform: unknown }>['perform']) {
  stop()
  const own = (watch = new Watch(sampleRate, channels))
  performers = new Map(
    played.map(({ channel, performance: sound, seed }) => [channel, new SimulatedPerformer(sampleRate, sound, seed)]),
  )
  playAs(how)
  let then = performance.now()
  playing = setInterval(() => {
    const now = performance.now()
    const length = Math.round((Math.min(1000, now - then) / 1000) * sampleRate)
    then = now
    if (length <= 0) return
    const blocks = Array.from({ length: channels }, () => new Float32Array(length))
    for (const [channel, each] of performers) blocks[channel]?.set(each.block(length))
    own.take(blocks)
  }, 1000 / SNAPSHOTS)
}

function playAs(how: Playing) {
  for (const each of performers.values()) each.playing = how
}

self.onmessage = ({ data }: MessageEvent<WatchTask>) => {
  if ('says' in data) {
    says = data.says
    says.onmessage = () => {
      isSaying = false
      const now = performance.now()
      if (listensAgain < listenedFrom) listensAgain = now + RESTS * (now - listenedFrom)
    }
  } else if ('begin' in data) listen(data.begin)
  else if ('perform' in data) perform(data.perform)
  else if ('file' in data) play(data.file)
  else if ('retune' in data)
    for (const { channel, performance: sound } of data.retune) performers.get(channel)?.setTo(sound)
  else if ('playing' in data) playAs(data.playing)
  else if ('passage' in data) watch?.startPassage()
  else if ('stop' in data) stop()
}
