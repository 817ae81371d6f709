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
  private length = 0
  private before = Number.NaN

  next(size: number, at: number): void {
    if (size > this.peak + SAME) {
      // What was the extreme so far was none.
      this.peak = size
      this.runs = []
      this.runCount = 0
      this.length = 0
    }
    if (size < this.peak - SAME || size < LEAST_LEVEL) {
      this.length = 0
    } else if (this.length > 0 && Math.abs(size - this.before) <= SAME) {
      this.length++
      this.extend(at)
    } else {
      this.length = 1
    }
    this.before = size
  }

  /** The signal has gone to the other side: a run is over. */
  leave(): void {
    this.length = 0
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

/** Time-domain figures of one channel, as its samples come. */
export class ChannelMeter {
  private peak = 0
  private peakAt = 0
  private sum = 0
  private squares = 0
  private count = 0
  private readonly above = new Extreme()
  private readonly below = new Extreme()
  private readonly hop: number
  private hopCount = 0
  private hopSquares = 0
  private readonly hops: number[] = []

  constructor(sampleRate: number) {
    this.hop = Math.round(sampleRate / 10)
  }

  frames(samples: Float64Array, count: number): void {
    for (let i = 0; i < count; i++) {
      const x = samples[i] as number
      const size = x < 0 ? -x : x
      if (size > this.peak) {
        this.peak = size
        this.peakAt = this.count
      }
      if (x < 0) {
        this.below.next(size, this.count)
        this.above.leave()
      } else {
        this.above.next(size, this.count)
        this.below.leave()
      }
      this.sum += x
      this.squares += x * x
      this.hopSquares += x * x
      this.count++
      if (++this.hopCount === this.hop) {
        this.hops.push(this.hopSquares / this.hop)
        this.hopCount = 0
        this.hopSquares = 0
      }
    }
  }

  end() {
    const meanSquare = this.count > 0 ? this.squares / this.count : 0
    const clipped = [this.above, this.below].filter((side) => side.peak >= NEAR_THE_PEAK * this.peak)
    return {
      peak: this.peak, peakAt: this.peakAt, meanSquare, dc: this.count > 0 ? this.sum / this.count : 0,
      clippedRuns: clipped.flatMap((side) => side.runs).sort((a, b) => a.from - b.from),
      clippedRunCount: clipped.reduce((sum, side) => sum + side.runCount, 0),
      quietest: quietestSecond(this.hops) ?? meanSquare,
    }
  }
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
