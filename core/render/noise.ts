import { seeded } from '../numeric/random'
import { AUDIO_BAND, aWeighting, hz } from '../units'

/** Box and Muller’s normal law with a standard deviation of 1. */
export const gaussian = (random: () => number): number =>
  Math.sqrt(-2 * Math.log(1 - random() || Number.EPSILON)) * Math.cos(2 * Math.PI * random())

const parts = new Map<number, number>()

/** What A-weighting leaves of the power of white noise at a sample rate (IEC 61672-1). */
export function weightedPart(sampleRate: number): number {
  const known = parts.get(sampleRate)
  if (known !== undefined) return known
  const STEPS = 2000
  const top = Math.min(AUDIO_BAND.high, sampleRate / 2)
  let sum = 0
  for (let i = 0; i < STEPS; i++) {
    const frequency = AUDIO_BAND.low + ((i + 0.5) / STEPS) * (top - AUDIO_BAND.low)
    sum += 10 ** (aWeighting(hz(frequency)) / 10)
  }
  const part = (sum / STEPS) * ((top - AUDIO_BAND.low) / (sampleRate / 2))
  parts.set(sampleRate, part)
  return part
}

/** Size of white noise whose A-weighted level is so many dB (AES17: a sine’s average is its peak’s level). */
export const noiseSize = (level: number, sampleRate: number): number =>
  (10 ** (level / 20) * Math.SQRT1_2) / Math.sqrt(weightedPart(sampleRate))

/** Adds white noise of an A-weighted level. */
export function addNoise(samples: Float64Array, level: number, sampleRate: number, seed: number): void {
  const size = noiseSize(level, sampleRate)
  const random = seeded(seed)
  // The sine’s half of the pair that Box and Muller make is as good as the cosine’s: one logarithm for two samples.
  for (let i = 0; i < samples.length; i += 2) {
    const radius = size * Math.sqrt(-2 * Math.log(1 - random() || Number.EPSILON))
    const turn = 2 * Math.PI * random()
    samples[i] = (samples[i] as number) + radius * Math.cos(turn)
    if (i + 1 < samples.length) samples[i + 1] = (samples[i + 1] as number) + radius * Math.sin(turn)
  }
}
