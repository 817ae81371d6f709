import type { LiveSnapshot } from '#core/measure/live/live-meter'
import { LiveMeter } from '#core/measure/live/live-meter'
import type { Performance, Playing } from '#core/render/performer'
import { SimulatedPerformer } from '#core/render/performer'
import { takeFrames } from './incoming-frames'

/** What the gauge’s worker is asked to do. */
export type GaugeTask =
  | { begin: { sampleRate: number; channels: readonly number[]; frames: MessagePort } }
  | { perform: { sampleRate: number; performance: Performance; seed: number; playing: Playing } }
  | { performance: Performance }
  | { playing: Playing }
  | { channels: readonly number[] }
  | { passage: true }
  | { record: true }
  | { recorded: true }
  | { stop: true }

export type GaugeMessage = { snapshot: LiveSnapshot } | { recorded: Float32Array<ArrayBuffer>[]; sampleRate: number }

/** Snapshots a second. */
const SNAPSHOTS = 20
/** A recording made here ends after so many seconds: it is kept in memory. */
const LONGEST = 600

/** Where frames come from: a port that a worklet fills, or a performer that is made up here. */
class Gauge {
  private meter: LiveMeter
  private sinceShown = 0
  private scratch: Float64Array[] = []
  private recording: Float32Array<ArrayBuffer>[][] | null = null
  private recordedFrames = 0

  constructor(
    private readonly sampleRate: number,
    private channels: readonly number[],
  ) {
    this.meter = new LiveMeter(sampleRate, channels.length)
  }

  take(blocks: readonly Float32Array<ArrayBuffer>[]): void {
    if (this.recording && this.recordedFrames < LONGEST * this.sampleRate) {
      this.recording.push([...blocks])
      this.recordedFrames += blocks[0]?.length ?? 0
    }
    const chosen = this.channels.map((each, i) => this.widened(blocks[each] ?? blocks[0], i))
    this.meter.frames(chosen)
    this.sinceShown += chosen[0]?.length ?? 0
    if (this.sinceShown * SNAPSHOTS < this.sampleRate) return
    this.sinceShown = 0
    post({ snapshot: this.meter.snapshot() })
  }

  /** As the meters take it; one array for each channel serves for ever. */
  private widened(block: Float32Array | undefined, i: number): Float64Array {
    const length = block?.length ?? 0
    const known = this.scratch[i]
    const into = known?.length === length ? known : (this.scratch[i] = new Float64Array(length))
    if (block) into.set(block)
    return into
  }

  choose(channels: readonly number[]): void {
    this.channels = channels
    this.meter = new LiveMeter(this.sampleRate, channels.length)
  }

  startPassage = (): void => this.meter.startPassage()

  record(): void {
    this.recording = []
    this.recordedFrames = 0
  }

  /** What was recorded, channel by channel. */
  recorded(): void {
    const parts = this.recording ?? []
    this.recording = null
    const channels = Array.from({ length: parts[0]?.length ?? 0 }, (_, c) => joined(parts.map((part) => part[c])))
    post(
      { recorded: channels, sampleRate: this.sampleRate },
      channels.map(({ buffer }) => buffer),
    )
  }
}

function joined(parts: readonly (Float32Array | undefined)[]): Float32Array<ArrayBuffer> {
  const whole = new Float32Array(parts.reduce((sum, part) => sum + (part?.length ?? 0), 0))
  let at = 0
  for (const part of parts) {
    if (!part) continue
    whole.set(part, at)
    at += part.length
  }
  return whole
}

const post = (message: GaugeMessage, handed: Transferable[] = []) => postMessage(message, { transfer: handed })

let gauge: Gauge | null = null
let frames: MessagePort | null = null
let performer: SimulatedPerformer | null = null
let playing: ReturnType<typeof setInterval> | undefined

function stop() {
  clearInterval(playing)
  frames?.close()
  frames = null
  performer = null
  gauge = null
}

function listen({ sampleRate, channels, frames: port }: Extract<GaugeTask, { begin: unknown }>['begin']) {
  stop()
  const own = (gauge = new Gauge(sampleRate, channels))
  frames = port
  takeFrames(port, (blocks) => own.take(blocks))
}

/** In real time by the clock: what a late timer missed is made up, up to a second of it. */
function perform(task: Extract<GaugeTask, { perform: unknown }>['perform']) {
  stop()
  const own = (gauge = new Gauge(task.sampleRate, [0]))
  const made = (performer = new SimulatedPerformer(task.sampleRate, task.performance, task.seed))
  made.playing = task.playing
  let then = performance.now()
  playing = setInterval(() => {
    const now = performance.now()
    const length = Math.round((Math.min(1000, now - then) / 1000) * task.sampleRate)
    then = now
    if (length > 0) own.take([Float32Array.from(made.block(length))])
  }, 1000 / SNAPSHOTS)
}

self.onmessage = ({ data }: MessageEvent<GaugeTask>) => {
  if ('begin' in data) listen(data.begin)
  else if ('perform' in data) perform(data.perform)
  else if ('performance' in data) performer?.setTo(data.performance)
  else if ('playing' in data && performer) performer.playing = data.playing
  else if ('channels' in data) gauge?.choose(data.channels)
  else if ('passage' in data) gauge?.startPassage()
  else if ('record' in data) gauge?.record()
  else if ('recorded' in data) gauge?.recorded()
  else if ('stop' in data) stop()
}
