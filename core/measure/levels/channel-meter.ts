import { OverviewMeter } from './overview'

/** A stretch of samples that stand at the same extreme value. */
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

/** The runs at the extreme of one polarity. A converter's two ends differ by a step, so each is looked at by itself. */
class Extreme {
  peak = 0
  runs: ClippedRun[] = []
  runCount = 0
  /** From this size on a sample matters to the extreme, and tells so by itself. */
  threshold = LEAST_LEVEL
  length = 0
  private before = Number.NaN

  next(size: number, at: number): void {
    if (size > this.peak + SAME) {
      // What was the extreme so far was none.
      this.peak = size
      this.runs = []
      this.runCount = 0
      this.length = 0
      this.threshold = Math.max(LEAST_LEVEL, size - SAME)
    }
    if (size < this.threshold) {
      this.length = 0
    } else if (this.length > 0 && Math.abs(size - this.before) <= SAME) {
      this.length++
      this.extend(at)
    } else {
      this.length = 1
    }
    this.before = size
  }

  private extend(at: number): void {
    if (this.length === LEAST_RUN) {
      this.runCount++
      if (this.runs.length < MOST_RUNS) this.runs.push({ from: at - LEAST_RUN + 1, frames: LEAST_RUN })
    } else if (this.length > LEAST_RUN && this.runCount <= MOST_RUNS) {
      const last = this.runs.at(-1)
      if (last) last.frames++
    }
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
  private readonly above = new Extreme()
  private readonly below = new Extreme()
  private readonly overview: OverviewMeter
  private readonly hop: number
  private hopCount = 0
  private hopSquares = 0
  private low = Infinity
  private high = -Infinity
  private readonly hops: number[] = []

  constructor(sampleRate: number) {
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
    let { low, high } = this
    let sum = 0
    let squares = 0
    for (let i = from; i < to; i++) {
      const x = samples[i] as number
      sum += x
      squares += x * x
      if (x > high) high = x
      if (x < low) low = x
      // Only samples at an extreme, and those that end a run there, are looked at more closely.
      if (x >= above.threshold || above.length > 0) above.next(x < 0 ? 0 : x, this.count + i - from)
      if (-x >= below.threshold || below.length > 0) below.next(x > 0 ? 0 : -x, this.count + i - from)
    }
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
