import type { WavFormat } from '../wav/format'
import { KFilter } from './k-weighting'

/** Loudness of all channels together, LUFS and LU; `null` where it was too short or too quiet. */
export interface Loudness {
  integrated: number | null
  momentaryMax: number | null
  shortTermMax: number | null
  range: number | null
}

/** −0.691 LUFS is what a full-scale mean square of 1 reads, BS.1770-4. */
const OFFSET = -0.691
export const ABSOLUTE_GATE = -70
export const toLoudness = (power: number) => OFFSET + 10 * Math.log10(power)
export const toPower = (loudness: number) => 10 ** ((loudness - OFFSET) / 10)

/** The K-weighted mean square of one channel for every 100 ms: all that a loudness is made of. */
export class LoudnessHops {
  private readonly filter: KFilter
  private readonly hop: number
  private count = 0
  private sum = 0
  readonly hops: number[] = []

  constructor(sampleRate: number) {
    this.filter = new KFilter(sampleRate)
    this.hop = Math.round(sampleRate / 10)
  }

  /** The hops since this was asked last; they are not kept. */
  taken(): number[] {
    return this.hops.splice(0)
  }

  frames(samples: Float64Array, count: number): void {
    for (let from = 0; from < count;) {
      const to = Math.min(count, from + this.hop - this.count)
      this.sum += this.filter.energy(samples, from, to)
      this.count += to - from
      from = to
      if (this.count < this.hop) continue
      this.hops.push(this.sum / this.hop)
      this.count = 0
      this.sum = 0
    }
  }
}

/** Loudspeakers in the order of the bits of a channel mask: only these matter to the weights. */
const LOW_FREQUENCY = 1 << 3
const SURROUNDS = (1 << 4) | (1 << 5) | (1 << 9) | (1 << 10)
const SURROUND_WEIGHT = 1.41

/**
 * Weight of every channel in the loudness of all, ITU-R BS.1770-4: surrounds 1.41, a low-frequency channel none – where the
 * file says by its channel mask which they are. Without one all count alike: six mono tracks are no 5.1.
 */
export function channelWeights({ channels, channelMask }: Pick<WavFormat, 'channels' | 'channelMask'>): number[] {
  const bits = Array.from({ length: 32 }, (_, bit) => 2 ** bit).filter((bit) => ((channelMask ?? 0) & bit) !== 0)
  return Array.from({ length: channels }, (_, i) => {
    const place = bits[i] ?? 0
    if (place === LOW_FREQUENCY) return 0
    return (place & SURROUNDS) !== 0 ? SURROUND_WEIGHT : 1
  })
}

/** Loudness of channels together, ITU-R BS.1770-4 with the gates of EBU Tech 3341 and 3342. */
export function loudnessOf(channels: readonly (readonly number[])[], weights: readonly number[] = []): Loudness {
  const hops = (channels[0] ?? []).map((_, i) =>
    channels.reduce((sum, each, c) => sum + (weights[c] ?? 1) * (each[i] ?? 0), 0),
  )
  const momentary = windows(hops, 4)
  const short = windows(hops, 30)
  return {
    integrated: gatedMean(momentary),
    momentaryMax: highest(momentary),
    shortTermMax: highest(short),
    range: loudnessRange(short),
  }
}

function highest(powers: readonly number[]): number | null {
  let most = 0
  for (const power of powers) if (power > most) most = power
  return most > 0 ? toLoudness(most) : null
}

/** Mean squares of sliding windows of so many hops. Each is summed anew: a running sum would keep the rounding of loud parts. */
function windows(hops: readonly number[], length: number): number[] {
  const means: number[] = []
  for (let i = length; i <= hops.length; i++) {
    let sum = 0
    for (let k = i - length; k < i; k++) sum += hops[k] as number
    means.push(sum / length)
  }
  return means
}

const mean = (powers: readonly number[]) => powers.reduce((sum, power) => sum + power, 0) / powers.length

/** Blocks over −70 LUFS, then those over their mean less 10 LU. */
function gatedMean(blocks: readonly number[]): number | null {
  const audible = blocks.filter((power) => power > toPower(ABSOLUTE_GATE))
  if (audible.length === 0) return null
  const gate = mean(audible) / 10
  const counted = audible.filter((power) => power > gate)
  return counted.length === 0 ? null : toLoudness(mean(counted))
}

/** EBU Tech 3342: from the 10th to the 95th percentile of the short-term loudness over the gate at −20 LU. */
function loudnessRange(short: readonly number[]): number | null {
  const audible = short.filter((power) => power > toPower(ABSOLUTE_GATE))
  if (audible.length === 0) return null
  const gate = mean(audible) / 100
  const counted = audible
    .filter((power) => power >= gate)
    .map(toLoudness)
    .sort((a, b) => a - b)
  const at = (part: number) => counted[Math.round((counted.length - 1) * part)] as number
  return counted.length === 0 ? null : at(0.95) - at(0.1)
}
