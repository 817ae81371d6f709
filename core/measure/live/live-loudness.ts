import { ABSOLUTE_GATE, LoudnessHops, toLoudness, toPower } from '../levels/loudness'

/** LUFS up to which blocks are told apart, and how finely. */
const HIGHEST = 10
const PER_LU = 100
const BINS = (HIGHEST - ABSOLUTE_GATE) * PER_LU

/**
 * Loudness as it comes, ITU-R BS.1770-4 with the gates of EBU Tech 3341: momentary over 400 ms, short-term over 3 s, integrated since
 * the beginning. Blocks are counted in bins of 0.01 LU with their energy, so that hours take no more room than a minute.
 */
export class LiveLoudness {
  private readonly channels: LoudnessHops[]
  /** The last three seconds, in hops of 100 ms. */
  private readonly recent: number[] = []
  private sinceForgot = 0
  private readonly counts = new Float64Array(BINS)
  private readonly energies = new Float64Array(BINS)

  constructor(sampleRate: number, channels: number) {
    this.channels = Array.from({ length: channels }, () => new LoudnessHops(sampleRate))
  }

  frames(samples: readonly Float64Array[], count: number): void {
    samples.forEach((each, c) => this.channels[c]?.frames(each, count))
    const taken = this.channels.map((each) => each.taken())
    const [first = []] = taken
    first.forEach((_, i) => this.hop(taken.reduce((sum, hops) => sum + (hops[i] ?? 0), 0)))
  }

  private hop(power: number): void {
    this.recent.push(power)
    if (this.recent.length > SHORT) this.recent.shift()
    this.sinceForgot++
    const block = this.sinceForgot < MOMENTARY ? null : this.mean(MOMENTARY)
    if (block === null || block <= toPower(ABSOLUTE_GATE)) return
    const bin = Math.min(BINS - 1, Math.floor((toLoudness(block) - ABSOLUTE_GATE) * PER_LU))
    this.counts[bin] = (this.counts[bin] as number) + 1
    this.energies[bin] = (this.energies[bin] as number) + block
  }

  /** The mean of the last hops; `null` as long as there are not so many. */
  private mean(hops: number): number | null {
    if (this.recent.length < hops) return null
    let sum = 0
    for (let i = this.recent.length - hops; i < this.recent.length; i++) sum += this.recent[i] as number
    return sum / hops
  }

  get momentary(): number | null {
    return audible(this.mean(MOMENTARY))
  }

  get shortTerm(): number | null {
    return audible(this.mean(SHORT))
  }

  get integrated(): number | null {
    const all = this.meanFrom(0)
    if (all === null) return null
    const gate = toLoudness(all) - RELATIVE_GATE
    return audible(this.meanFrom(Math.max(0, Math.floor((gate - ABSOLUTE_GATE) * PER_LU) + 1)))
  }

  private meanFrom(bin: number): number | null {
    let [count, energy] = [0, 0]
    for (let i = bin; i < BINS; i++) {
      count += this.counts[i] as number
      energy += this.energies[i] as number
    }
    return count === 0 ? null : energy / count
  }

  /** The integrated loudness begins anew; what was heard of the last seconds stays. */
  forget(): void {
    this.counts.fill(0)
    this.energies.fill(0)
    this.sinceForgot = 0
  }
}

const [MOMENTARY, SHORT] = [4, 30]
/** LU under the mean of what is audible. */
const RELATIVE_GATE = 10

const audible = (power: number | null): number | null => (power === null || power <= 0 ? null : toLoudness(power))
