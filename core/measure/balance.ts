import { mean, standardDeviation } from '../numeric/statistics'
import { blockPowers } from './block-levels'
import { burstsOf } from './bursts'
import { measureLoopback } from './loopback'
import type { WavFault } from './wav/format'

/** Two channels that were given the same signal. */
export interface Balance {
  /** Second channel over the first, dB. */
  difference: number
  /** Standard deviation of it from pulse to pulse, or from stretch to stretch, dB. */
  deviation: number
  /** Whether the two go the same way. */
  sameWay: boolean
  /** Whether each channel keeps the way of the polarity pulse, which goes up first; `null` where there are no pulses. */
  keepsPolarity: [boolean, boolean] | null
  /** How far the second one lags behind the first, frames. */
  lagFrames: number
  /** Pulses or stretches that were compared. */
  count: number
}

/** A pulse is at most this long; what is longer is a tone. */
const LONGEST_PULSE = 0.1
const STRETCH_SECONDS = 0.5

/** Compares two channels by pulses with silence between them, or by a steady tone. */
export function measureBalance(first: Float64Array, second: Float64Array, sampleRate: number): Balance | WavFault {
  const together = measureLoopback(first.subarray(0, 10 * sampleRate), second.subarray(0, 10 * sampleRate), sampleRate)
  if (!together) return { code: 'silent', message: 'One of the two channels is silent. Check the leads and the channel numbers.' }
  const bursts = burstsOf(first, sampleRate)
  const pulses = bursts.length >= 2 && bursts.every(({ from, to }) => to - from < LONGEST_PULSE * sampleRate) ? bursts : null
  const differences = pulses ? betweenPulses(first, second, pulses, sampleRate) : betweenStretches(first, second, sampleRate)
  if (differences.length === 0) return { code: 'too-short', message: 'There is too little in the two channels to compare them. Play the polarity pulses, or a tone, for some seconds.' }
  return {
    difference: mean(differences), deviation: standardDeviation(differences), sameWay: together.polarity > 0, lagFrames: together.lagFrames, count: differences.length,
    keepsPolarity: pulses ? [goesUp(first, pulses), goesUp(second, pulses)] : null,
  }
}

const decibels = (second: number, first: number) => (first > 0 && second > 0 ? [10 * Math.log10(second / first)] : [])

/** Energy of a pulse less that of the same length of what lies before it. */
function betweenPulses(first: Float64Array, second: Float64Array, pulses: readonly { from: number, to: number }[], sampleRate: number): number[] {
  const margin = Math.round(0.005 * sampleRate)
  const energy = (samples: Float64Array, from: number, to: number) => samples.subarray(Math.max(0, from), to).reduce((sum, x) => sum + x * x, 0)
  return pulses.slice(1).flatMap(({ from, to }) => {
    const length = to - from + 2 * margin
    const own = (samples: Float64Array) => energy(samples, from - margin, to + margin) - energy(samples, from - margin - length, from - margin)
    return decibels(own(second), own(first))
  })
}

function betweenStretches(first: Float64Array, second: Float64Array, sampleRate: number): number[] {
  const [a, b] = [first, second].map((samples) => blockPowers(samples, Math.round(STRETCH_SECONDS * sampleRate))) as [number[], number[]]
  const loud = 0.25 * Math.max(0, ...a)
  return a.flatMap((power, i) => (power > loud ? decibels(b[i] ?? 0, power) : []))
}

/** Whether the greatest excursion of most pulses is upwards. */
function goesUp(samples: Float64Array, pulses: readonly { from: number, to: number }[]): boolean {
  const ups = pulses.filter(({ from, to }) => {
    let extreme = 0
    for (let i = Math.max(0, from - 100); i < Math.min(samples.length, to + 100); i++) if (Math.abs(samples[i] as number) > Math.abs(extreme)) extreme = samples[i] as number
    return extreme > 0
  })
  return ups.length > pulses.length / 2
}
