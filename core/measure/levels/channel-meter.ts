import type { WavFormat } from '../wav/format'
import { ClippedRuns } from './clipped-runs'
import { OverviewMeter } from './overview'

/** Time-domain figures of one channel, as its samples come: worked out in tenths of a second. */
export class ChannelMeter {
  private peak = 0
  private peakAt = 0
  private sum = 0
  private squares = 0
  private count = 0
  private readonly runs: ClippedRuns
  private last = 0
  private readonly overview: OverviewMeter
  private readonly hop: number
  private hopCount = 0
  private hopSquares = 0
  private low = Infinity
  private high = -Infinity
  private readonly hops: number[] = []

  constructor({ sampleRate, bits, encoding }: Pick<WavFormat, 'sampleRate' | 'bits' | 'encoding'>) {
    this.runs = new ClippedRuns({ bits, encoding })
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
    const { above, below } = this.runs
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
    this.runs.end()
    const meanSquare = this.count > 0 ? this.squares / this.count : 0
    const clipped = this.runs.found(this.peak)
    return {
      peak: this.peak,
      peakAt: this.peakAt,
      meanSquare,
      dc: this.count > 0 ? this.sum / this.count : 0,
      clippedRuns: clipped.runs,
      clippedRunCount: clipped.count,
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
