import type { WavFormat } from '../wav/format'
import { OverviewMeter } from './overview'

/** A stretch of samples that stand at the same extreme value, and that the signal does not come to gently. */
export interface ClippedRun {
  /** First frame. */
  from: number
  frames: number
}

/** Samples that have to stand at the extreme one after the other before it is clipping, not a touch. */
const LEAST_RUN = 3

/** Below this an extreme value is no clipping at all: a plain quiet signal may repeat values. */
const LEAST_LEVEL = 0.05

/** Two samples closer than this are the same: below the step of 24 bits. */
const SAME = 1e-7

/** Runs that are kept with their places; all are counted. */
const MOST_RUNS = 1000

/**
 * How far a signal has to step away from a plateau, on one of its sides, for the plateau to be clipping, in steps of the
 * file: the top of a slow sine is flat too, where it falls by less than a step from sample to sample.
 */
const STEPS_AWAY = 4

/** A run that may be clipping, as long as the extreme is not passed and until it is seen how it ends. */
interface Plateau {
  from: number
  frames: number
  /** How far the signal rose into it with its last sample. */
  rise: number
}

/** The runs at the extreme of one polarity. A converter's two ends differ by a step, so each is looked at by itself. */
class Extreme {
  peak = 0
  runs: ClippedRun[] = []
  runCount = 0
  /** From this size on a sample matters to the extreme, and tells so by itself. */
  threshold = LEAST_LEVEL
  /** Whether a run is under way: then the next sample matters whatever its size. */
  running = false
  private plateau: Plateau = { from: 0, frames: 0, rise: 0 }
  private before = Number.NaN

  /** @param away how far the signal has to step away from a plateau. */
  constructor(private readonly away: number) {}

  next(size: number, previous: number, at: number): void {
    if (size > this.peak + SAME) {
      // What was the extreme so far was none.
      this.peak = size
      this.runs = []
      this.runCount = 0
      this.running = false
      this.threshold = Math.max(LEAST_LEVEL, size - SAME)
    }
    if (this.running && size >= this.threshold && Math.abs(size - this.before) <= SAME) {
      this.plateau.frames++
    } else {
      if (this.running) this.close(this.before - size)
      this.running = size >= this.threshold
      if (this.running) this.plateau = { from: at, frames: 1, rise: size - previous }
    }
    this.before = size
  }

  /** The plateau ends with a fall, or with the recording. */
  close(fall: number): void {
    const { from, frames, rise } = this.plateau
    this.running = false
    if (frames < LEAST_RUN || Math.max(rise, fall) <= this.away) return
    this.runCount++
    if (this.runs.length < MOST_RUNS) this.runs.push({ from, frames })
  }

  end(): void {
    if (this.running) this.close(0)
  }
}

/** The lower side counts as clipped too where its extreme comes this near to the higher one's. */
const NEAR_THE_PEAK = 10 ** (-1 / 20)

/** Time-domain figures of one channel, as its samples come: worked out in tenths of a second. */
export class ChannelMeter {
  private peak = 0
  private peakAt = 0
  private sum = 0
  private squares = 0
  private count = 0
  private readonly above: Extreme
  private readonly below: Extreme
  private last = 0
  private readonly overview: OverviewMeter
  private readonly hop: number
  private hopCount = 0
  private hopSquares = 0
  private low = Infinity
  private high = -Infinity
  private readonly hops: number[] = []

  constructor({ sampleRate, bits, encoding }: Pick<WavFormat, 'sampleRate' | 'bits' | 'encoding'>) {
    // Much of what is stored with more bits was made with 16.
    const away = STEPS_AWAY * 2 ** (1 - (encoding === 'integer' ? Math.min(16, bits) : 16))
    this.above = new Extreme(away)
    this.below = new Extreme(away)
    this.hop = Math.round(sampleRate / 10)
    this.overview = new OverviewMeter(this.hop / sampleRate)
  }

  frames(samples: Float64Array, count: number): void {
    for (let from = 0; from < count;) {
      const to = Math.min(count, from + this.hop - this.hopCount)
      this.stretch(samples, from, to)
      this.hopCount += to - from
      from = to
      if (this.hopCount === this.hop) this.endHop()
    }
  }

  private stretch(samples: Float64Array, from: number, to: number): void {
    const { above, below } = this
    let { low, high, last } = this
    let sum = 0
    let squares = 0
    for (let i = from; i < to; i++) {
      const x = samples[i] as number
      sum += x
      squares += x * x
      if (x > high) high = x
      if (x < low) low = x
      // Only samples at an extreme, and those that end a run there, are looked at more closely.
      if (x >= above.threshold || above.running) above.next(x, last, this.count + i - from)
      if (-x >= below.threshold || below.running) below.next(-x, -last, this.count + i - from)
      last = x
    }
    this.last = last
    const size = Math.max(high, -low)
    if (size > this.peak) {
      this.peak = size
      this.peakAt = this.count + placeOf(samples, from, to, size)
    }
    this.low = low
    this.high = high
    this.sum += sum
    this.hopSquares += squares
    this.count += to - from
  }

  private endHop(): void {
    const power = this.hopSquares / this.hopCount
    this.overview.add(this.low, this.high, power)
    if (this.hopCount === this.hop) this.hops.push(power)
    this.squares += this.hopSquares
    this.low = Infinity
    this.high = -Infinity
    this.hopCount = 0
    this.hopSquares = 0
  }

  end() {
    if (this.hopCount > 0) this.endHop()
    this.above.end()
    this.below.end()
    const meanSquare = this.count > 0 ? this.squares / this.count : 0
    const clipped = [this.above, this.below].filter(
      (side) => side.runCount > 0 && side.peak >= NEAR_THE_PEAK * this.peak,
    )
    return {
      peak: this.peak,
      peakAt: this.peakAt,
      meanSquare,
      dc: this.count > 0 ? this.sum / this.count : 0,
      clippedRuns: clipped.flatMap((side) => side.runs).sort((a, b) => a.from - b.from),
      clippedRunCount: clipped.reduce((sum, side) => sum + side.runCount, 0),
      quietest: quietestSecond(this.hops) ?? meanSquare,
      overview: this.overview.end(),
    }
  }
}

/** Where in a stretch a size first stands, counted from its beginning. */
function placeOf(samples: Float64Array, from: number, to: number, size: number): number {
  let i = from
  while (i < to - 1 && Math.abs(samples[i] as number) < size) i++
  return i - from
}

/** The least mean square over a second, from those of tenths of one. */
function quietestSecond(hops: readonly number[]): number | null {
  let least: number | null = null
  for (let i = 10; i <= hops.length; i++) {
    let sum = 0
    for (let k = i - 10; k < i; k++) sum += hops[k] as number
    if (least === null || sum / 10 < least) least = sum / 10
  }
  return least
}
