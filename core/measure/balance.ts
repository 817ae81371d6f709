import { mean, standardDeviation } from '../numeric/statistics'
import { blockPowers } from './block-levels'
import { burstsOf } from './bursts'
import { findLag } from './loopback'
import type { Stretch } from './steady'
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
  /** Size of the correlation coefficient of the two where there is signal, the lag taken out: 1 for the same signal, 0 for strangers. */
  likeness: number
  /** Pulses or stretches that were compared. */
  count: number
}

/** A pulse is at most this long; what is longer is a tone. */
const LONGEST_PULSE = 0.1
const STRETCH_SECONDS = 0.5

/** Compares two channels by pulses with silence between them, or by a steady tone. */
export function measureBalance(first: Float64Array, second: Float64Array, sampleRate: number): Balance | WavFault {
  const together = findLag(first.subarray(0, 10 * sampleRate), second.subarray(0, 10 * sampleRate), sampleRate)
  if (!together)
    return { code: 'silent', message: 'One of the two channels is silent. Check the cables and the channel numbers.' }
  const [a, b] = aligned(first, second, Math.round(together.lagFrames))
  const pulses = pulsesOf(a, b, sampleRate)
  const differences = pulses ? betweenPulses(a, b, pulses, sampleRate) : betweenStretches(a, b, sampleRate)
  if (differences.length === 0)
    return {
      code: 'too-short',
      message:
        'There is too little that the two channels have in common. Check the cables and the channel numbers; play the polarity pulses, or a tone, for some seconds.',
    }
  return {
    difference: mean(differences),
    deviation: standardDeviation(differences),
    sameWay: together.polarity > 0,
    lagFrames: together.lagFrames,
    count: differences.length,
    likeness: likeness(a, b, pulses ?? [{ from: 0, to: a.length }]),
    keepsPolarity: pulses ? [goesUp(a, pulses), goesUp(b, pulses)] : null,
  }
}

/** The pulses of the first channel that the second one answers, for one may have begun earlier; `null` where there are no pulses. */
function pulsesOf(first: Float64Array, second: Float64Array, sampleRate: number): Stretch[] | null {
  const bursts = burstsOf(first, sampleRate)
  if (bursts.length < 2 || bursts.some(({ from, to }) => to - from >= LONGEST_PULSE * sampleRate)) return null
  const answers = burstsOf(second, sampleRate)
  return bursts.filter(({ from, to }) => answers.some((answer) => answer.from < to && answer.to > from))
}

/** Two recordings laid side by side may begin at different times: what they have in common, from the same moment on. */
function aligned(first: Float64Array, second: Float64Array, lag: number): [Float64Array, Float64Array] {
  const [a, b] = [first.subarray(Math.max(0, -lag)), second.subarray(Math.max(0, lag))]
  const length = Math.min(a.length, b.length)
  return [a.subarray(0, length), b.subarray(0, length)]
}

function likeness(first: Float64Array, second: Float64Array, where: readonly { from: number; to: number }[]): number {
  let [both, a, b] = [0, 0, 0]
  for (const { from, to } of where) {
    for (let i = from; i < to; i++) {
      const [x, y] = [first[i] as number, second[i] as number]
      both += x * y
      a += x * x
      b += y * y
    }
  }
  return a > 0 && b > 0 ? Math.abs(both) / Math.sqrt(a * b) : 0
}

const decibels = (second: number, first: number) => (first > 0 && second > 0 ? [10 * Math.log10(second / first)] : [])

/** Energy of a pulse less that of the same length of what lies before it. */
function betweenPulses(
  first: Float64Array,
  second: Float64Array,
  pulses: readonly { from: number; to: number }[],
  sampleRate: number,
): number[] {
  const margin = Math.round(0.005 * sampleRate)
  const energy = (samples: Float64Array, from: number, to: number) =>
    samples.subarray(Math.max(0, from), to).reduce((sum, x) => sum + x * x, 0)
  return pulses.slice(1).flatMap(({ from, to }) => {
    const length = to - from + 2 * margin
    const own = (samples: Float64Array) =>
      energy(samples, from - margin, to + margin) - energy(samples, from - margin - length, from - margin)
    return decibels(own(second), own(first))
  })
}

function betweenStretches(first: Float64Array, second: Float64Array, sampleRate: number): number[] {
  const [a, b] = [first, second].map((samples) => blockPowers(samples, Math.round(STRETCH_SECONDS * sampleRate))) as [
    number[],
    number[],
  ]
  const loud = 0.25 * Math.max(0, ...a)
  return a.flatMap((power, i) => (power > loud ? decibels(b[i] ?? 0, power) : []))
}

/** Whether the greatest excursion of most pulses is upwards. */
function goesUp(samples: Float64Array, pulses: readonly { from: number; to: number }[]): boolean {
  const ups = pulses.filter(({ from, to }) => {
    let extreme = 0
    for (let i = Math.max(0, from - 100); i < Math.min(samples.length, to + 100); i++)
      if (Math.abs(samples[i] as number) > Math.abs(extreme)) extreme = samples[i] as number
    return extreme > 0
  })
  return ups.length > pulses.length / 2
}
