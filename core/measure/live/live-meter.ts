import { amplitudeToDbfs, meanSquareToDbfs } from '../block-levels'
import { AWeightedMeter } from '../levels/a-weighted'
import { ClippedRuns } from '../levels/clipped-runs'
import { TruePeakMeter } from '../levels/true-peak'
import { LiveLoudness } from './live-loudness'

/** What the gauge shows at a moment. Levels in dBFS (AES17 for averages); `null` for silence, or before there is one. */
export interface LiveSnapshot {
  /** s since the beginning. */
  seconds: number
  /** Since the snapshot before: what the river is drawn from. */
  now: { peak: number | null; average: number | null }
  /** Since the passage began. */
  passage: {
    seconds: number
    peak: number | null
    /** s ago. */
    peakAgo: number
    truePeak: number | null
    average: number | null
    /** Of its loudest three seconds. */
    loudest: number | null
    /** The peak over that, dB; a sine has 3.01. */
    crest: number | null
    clippedRuns: number
    integrated: number | null
  }
  momentary: number | null
  shortTerm: number | null
  /** A-weighted, of the quietest second since the passage began, dBFS(A). */
  floor: number | null
}

/** What comes in is taken for 24-bit numbers: a browser hands out floating point, whatever the converter made. */
const WORDS = { bits: 24, encoding: 'integer' } as const

/** Windows of the loudest stretch of a passage, s: as `measure/loudest-passage` has it. */
const LOUDEST = 3
/** The quietest stretch is looked for in windows of about that length, s. */
const QUIET = 1

/**
 * Levels as they come: works by frames, keeps nothing of what it was given, and so takes the same room after a minute and after a
 * day. With several channels the levels are those of the loudest, the loudness that of all.
 */
export class LiveMeter {
  private readonly channels: LiveChannel[]
  private readonly loudness: LiveLoudness
  private frameCount = 0
  private begun = 0

  constructor(
    readonly sampleRate: number,
    channels: number,
  ) {
    this.channels = Array.from({ length: channels }, () => new LiveChannel(sampleRate))
    this.loudness = new LiveLoudness(sampleRate, channels)
  }

  /** @param samples one array for each channel, all equally long */
  frames(samples: readonly Float64Array[]): void {
    const count = samples[0]?.length ?? 0
    samples.forEach((each, c) => this.channels[c]?.frames(each, count))
    this.loudness.frames(samples, count)
    this.frameCount += count
  }

  /** The next passage begins: what is held is let go. */
  startPassage(): void {
    for (const each of this.channels) each.startPassage()
    this.loudness.forget()
    this.begun = this.frameCount
  }

  snapshot(): LiveSnapshot {
    const of = <T extends number>(read: (each: LiveChannel) => T): number => Math.max(0, ...this.channels.map(read))
    const loudest = this.channels.reduce((most, each) => (each.peak > most.peak ? each : most))
    const shown = this.channels.map((each) => each.sinceShown())
    const floors = this.channels.map((each) => each.quietest).filter((each) => each !== null)
    const [peak, power, loudestPower] = [of((each) => each.peak), of((each) => each.power), of((each) => each.loudest)]
    return {
      seconds: this.frameCount / this.sampleRate,
      now: {
        peak: amplitudeToDbfs(Math.max(0, ...shown.map((each) => each.peak))),
        average: meanSquareToDbfs(Math.max(0, ...shown.map((each) => each.power))),
      },
      passage: {
        seconds: (this.frameCount - this.begun) / this.sampleRate,
        peak: amplitudeToDbfs(peak),
        peakAgo: (this.frameCount - loudest.peakAt) / this.sampleRate,
        truePeak: amplitudeToDbfs(
          Math.max(
            peak,
            of((each) => each.truePeak),
          ),
        ),
        average: meanSquareToDbfs(power),
        loudest: meanSquareToDbfs(loudestPower),
        crest: crestOf(peak, loudestPower),
        clippedRuns: this.channels.reduce((sum, each) => sum + each.clippedRuns, 0),
        integrated: this.loudness.integrated,
      },
      momentary: this.loudness.momentary,
      shortTerm: this.loudness.shortTerm,
      floor: floors.length > 0 ? meanSquareToDbfs(Math.max(...floors)) : null,
    }
  }
}

const crestOf = (peak: number, power: number): number | null =>
  peak > 0 && power > 0 ? 20 * Math.log10(peak / Math.sqrt(power)) : null

/** One channel of it. */
class LiveChannel {
  peak = 0
  /** Frame of it. */
  peakAt = 0
  /** The greatest mean square over three seconds. */
  loudest = 0
  quietest: number | null = null
  private readonly hop: number
  private readonly oversampled = new TruePeakMeter()
  private readonly weighted: AWeightedMeter
  private runs = new ClippedRuns(WORDS)
  private count = 0
  private last = 0
  private squares = 0
  private squaredFrames = 0
  private shown = { peak: 0, squares: 0, frames: 0 }
  private hopSquares = 0
  private hopFrames = 0
  private sinceQuiet = 0
  /** The last three seconds, in hops of 100 ms. */
  private readonly recent: number[] = []

  constructor(private readonly sampleRate: number) {
    this.hop = Math.round(sampleRate / 10)
    this.weighted = new AWeightedMeter(sampleRate)
  }

  get power(): number {
    return this.squaredFrames > 0 ? this.squares / this.squaredFrames : 0
  }

  get truePeak(): number {
    return this.oversampled.soFar
  }

  get clippedRuns(): number {
    return this.runs.found(this.peak).count
  }

  startPassage(): void {
    this.peak = 0
    this.loudest = 0
    this.quietest = null
    this.squares = 0
    this.squaredFrames = 0
    this.recent.length = 0
    this.runs = new ClippedRuns(WORDS)
    this.oversampled.forget()
  }

  frames(samples: Float64Array, count: number): void {
    const { above, below } = this.runs
    let { last } = this
    for (let i = 0; i < count; i++) {
      const x = samples[i] as number
      const size = x < 0 ? -x : x
      if (size > this.shown.peak) this.shown.peak = size
      if (size > this.peak) {
        this.peak = size
        this.peakAt = this.count + i
      }
      if (x >= above.threshold || above.running) above.next(x, last, this.count + i)
      if (-x >= below.threshold || below.running) below.next(-x, -last, this.count + i)
      this.hopSquares += x * x
      if (++this.hopFrames === this.hop) this.endHop()
      last = x
    }
    this.last = last
    this.count += count
    this.oversampled.frames(samples, count)
    this.weighted.frames(samples, count)
    this.sinceQuiet += count
    if (this.sinceQuiet >= QUIET * this.sampleRate) this.lookForQuiet()
  }

  private endHop(): void {
    this.squares += this.hopSquares
    this.squaredFrames += this.hopFrames
    this.shown.squares += this.hopSquares
    this.shown.frames += this.hopFrames
    this.recent.push(this.hopSquares / this.hopFrames)
    if (this.recent.length > LOUDEST * 10) this.recent.shift()
    const power = this.recent.reduce((sum, each) => sum + each, 0) / this.recent.length
    // A passage shorter than that is its own loudest stretch.
    this.loudest = this.squaredFrames < LOUDEST * this.sampleRate ? power : Math.max(this.loudest, power)
    this.hopSquares = 0
    this.hopFrames = 0
  }

  private lookForQuiet(): void {
    const power = this.weighted.taken()
    this.sinceQuiet = 0
    if (power !== null && (this.quietest === null || power < this.quietest)) this.quietest = power
  }

  /** Peak and mean square since this was asked last. */
  sinceShown(): { peak: number; power: number } {
    const { peak, squares, frames } = this.shown
    const all = frames + this.hopFrames
    const power = all > 0 ? (squares + this.hopSquares) / all : 0
    // The hop under way is shown again with the next one; that is no harm to a picture.
    this.shown = { peak: 0, squares: 0, frames: 0 }
    return { peak, power }
  }
}
