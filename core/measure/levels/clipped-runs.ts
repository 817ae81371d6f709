import type { WavFormat } from '../wav/format'

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
const SAME_SAMPLE = 1e-7

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
    if (size > this.peak + SAME_SAMPLE) {
      // What was the extreme so far was none.
      this.peak = size
      this.runs = []
      this.runCount = 0
      this.running = false
      this.threshold = Math.max(LEAST_LEVEL, size - SAME_SAMPLE)
    }
    if (this.running && size >= this.threshold && Math.abs(size - this.before) <= SAME_SAMPLE) {
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

/** Both extremes of one channel, and what of their runs is clipping. */
export class ClippedRuns {
  readonly above: Extreme
  readonly below: Extreme

  constructor({ bits, encoding }: Pick<WavFormat, 'bits' | 'encoding'>) {
    // Much of what is stored with more bits was made with 16.
    const away = STEPS_AWAY * 2 ** (1 - (encoding === 'integer' ? Math.min(16, bits) : 16))
    this.above = new Extreme(away)
    this.below = new Extreme(away)
  }

  end(): void {
    this.above.end()
    this.below.end()
  }

  /** @param peak of the channel; the other side counts where its extreme comes near */
  found(peak: number): { runs: ClippedRun[]; count: number } {
    const sides = [this.above, this.below].filter((side) => side.runCount > 0 && side.peak >= NEAR_THE_PEAK * peak)
    return {
      runs: sides.flatMap(({ runs }) => runs).sort((a, b) => a.from - b.from),
      count: sides.reduce((sum, { runCount }) => sum + runCount, 0),
    }
  }
}
