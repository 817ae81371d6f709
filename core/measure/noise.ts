import { mean, standardDeviation } from '../numeric/statistics'
import { longestAlike, samplesOf } from './alike'
import { amplitudeToDbfs, meanSquareToDbfs } from './block-levels'
import type { Hum } from './hum'
import { findHum } from './hum'
import { SpectrumMeter, weightedPower } from './levels/spectrum'
import type { WavFault } from './wav/format'

/** The noise of a recording in which nothing plays, 20 Hz to 20 kHz. */
export interface Noise {
  /** A-weighted, dBFS. */
  weighted: number
  /** Unweighted, dBFS. */
  flat: number
  /** A-weighted, without the lines of the hum. */
  withoutHum: number
  /** Standard deviation of the A-weighted level from second to second, dB. */
  deviation: number
  peak: number
  /** Of the stretch that was measured. */
  seconds: number
  /** Seconds of the recording that are not in it, since the stretch ends where something else is heard. */
  leftOut: number
  hum: Hum | null
}

/** A second that is so far from most is not the noise of the input, but a knock, a chair, a gap (common practice, no source), dB. */
const ALIKE = 1.5
/** Fine enough to tell 49.5 from 50.5 Hz. */
const FINE_STEP = 0.4
const LEAST_SECONDS = 2

/** The noise of the longest stretch of a recording whose seconds are alike; of all of it where there is no such stretch. */
export function measureNoise(recording: Float64Array, sampleRate: number): Noise | WavFault {
  const whole = recording.length / sampleRate
  if (whole < LEAST_SECONDS)
    return {
      code: 'too-short',
      message: `The recording lasts ${whole.toFixed(1)} s. Record ten seconds or more of silence.`,
    }
  const levels = secondBySecond(recording, sampleRate)
  const alike = longestAlike(levels, ALIKE)
  const calm = alike && alike.to - alike.from >= LEAST_SECONDS ? alike : null
  const samples = calm ? samplesOf(calm, sampleRate, levels.length, recording) : recording
  const seconds = samples.length / sampleRate
  const fine = new SpectrumMeter(sampleRate, FINE_STEP)
  fine.frames(samples, samples.length)
  const spectrum = fine.end()
  const { weighted, flat } = weightedPower(spectrum)
  const [levelA, level] = [meanSquareToDbfs(weighted), meanSquareToDbfs(flat)]
  if (!spectrum || levelA === null || level === null)
    return {
      code: 'silent',
      message:
        'This channel is digital silence: no converter gives that. Check the channel, that the input was armed, and that no gate was on.',
    }
  const hum = findHum(spectrum)
  return {
    weighted: levelA,
    flat: level,
    withoutHum: meanSquareToDbfs(weightedPower(hum ? without(spectrum, hum) : spectrum).weighted) ?? levelA,
    deviation: standardDeviation(calm ? levels.slice(calm.from, calm.to) : levels.filter(Number.isFinite)),
    peak: amplitudeToDbfs(samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0)) ?? level,
    seconds,
    leftOut: whole - seconds,
    hum,
  }
}

function secondBySecond(samples: Float64Array, sampleRate: number): number[] {
  const levels: number[] = []
  for (let from = 0; from + sampleRate <= samples.length; from += sampleRate) {
    const meter = new SpectrumMeter(sampleRate)
    meter.frames(samples.subarray(from, from + sampleRate), sampleRate)
    levels.push(meanSquareToDbfs(weightedPower(meter.end()).weighted) ?? -Infinity)
  }
  return levels
}

/** The spectrum with the hum's lines cut down to the noise on their two sides. */
function without({ step, powers }: { step: number; powers: Float64Array }, { lines }: Hum) {
  const left = powers.slice()
  for (const { frequency } of lines) {
    const middle = Math.round(frequency / step)
    const beside = mean([-6, -5, -4, 4, 5, 6].map((off) => powers[middle + off] ?? 0))
    for (let k = middle - 3; k <= middle + 3; k++) left[k] = Math.min(left[k] ?? 0, beside)
  }
  return { step, powers: left }
}
