/** Two channels that carry one sound: the same way, or turned over. */
export interface Alike {
  /** Counted from 0. */
  channels: [number, number]
  /** Correlation coefficient without any lag, −1…1. */
  likeness: number
}

/** What is listened to at once, s: enough for a pause of speech and for what comes evenly. */
export const LISTENS = 10
/** Two channels are compared over so much, s, in every second frame. */
const COMPARED = 2
const STEP = 2
/** Less is no sound to compare, mean square: −70 dBFS. */
const LEAST = 1e-7 / 2

/**
 * What was just heard, for what levels do not tell: the last ten seconds of each channel and nothing else. Looking takes longer than
 * measuring, so channels are handed out one at a time, to be looked at elsewhere.
 */
export class LiveMemory {
  private readonly rings: Float32Array[]
  private at = 0
  private filled = 0
  private next = 0

  constructor(
    private readonly sampleRate: number,
    channels: number,
  ) {
    this.rings = Array.from({ length: channels }, () => new Float32Array(LISTENS * sampleRate))
  }

  /** @param samples one array for each channel, all equally long */
  frames(samples: readonly Float64Array[]): void {
    const count = samples[0]?.length ?? 0
    const size = LISTENS * this.sampleRate
    samples.forEach((each, c) => {
      const ring = this.rings[c] as Float32Array
      const first = Math.min(count, size - this.at)
      ring.set(each.subarray(0, first), this.at)
      if (first < count) ring.set(each.subarray(first), 0)
    })
    this.at = (this.at + count) % size
    this.filled = Math.min(size, this.filled + count)
  }

  /** What was turned or plugged is listened to anew. */
  forget(): void {
    this.filled = 0
  }

  /** Whether ten seconds came since it began, or forgot. */
  get isFull(): boolean {
    return this.filled === LISTENS * this.sampleRate
  }

  /** The last ten seconds of the channel whose turn it is. @returns `null` until ten seconds came */
  hand(): { channel: number; samples: Float64Array<ArrayBuffer> } | null {
    if (!this.isFull) return null
    const channel = this.next
    this.next = (channel + 1) % this.rings.length
    return { channel, samples: this.last(channel, LISTENS) }
  }

  /** Which channels carry one sound. @param least size of the coefficient from which on they do */
  alike(least: number): Alike[] {
    if (this.filled < COMPARED * this.sampleRate) return []
    const parts = this.rings.map((_, c) => this.last(c, COMPARED))
    const powers = parts.map((part) => correlation(part, part))
    const found: Alike[] = []
    for (let a = 0; a < parts.length; a++)
      for (let b = a + 1; b < parts.length; b++) {
        const [own, other] = [powers[a] as number, powers[b] as number]
        if (own < LEAST || other < LEAST) continue
        const likeness = correlation(parts[a] as Float64Array, parts[b] as Float64Array) / Math.sqrt(own * other)
        if (Math.abs(likeness) >= least) found.push({ channels: [a, b], likeness })
      }
    return found
  }

  /** The newest of a channel, s. */
  private last(channel: number, seconds: number): Float64Array<ArrayBuffer> {
    const ring = this.rings[channel] as Float32Array
    const length = Math.round(seconds * this.sampleRate)
    const out = new Float64Array(length)
    const from = (this.at - length + ring.length) % ring.length
    const first = Math.min(length, ring.length - from)
    out.set(ring.subarray(from, from + first))
    if (first < length) out.set(ring.subarray(0, length - first), first)
    return out
  }
}

/** Mean product of two channels, in every second frame: what is alike is so in every frame. */
function correlation(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i += STEP) sum += (a[i] as number) * (b[i] as number)
  return (STEP * sum) / a.length
}
