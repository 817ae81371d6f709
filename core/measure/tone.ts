import { longestAlike, samplesOf } from './alike'
import { amplitudeToDbfs, blockPowers, meanSquareToDbfs } from './block-levels'
import { SpectrumMeter, weightedPower } from './levels/spectrum'
import { fitSine } from './sine-fit'
import { longestSteady } from './steady'
import type { WavFault } from './wav/format'

/** A steady tone in a recording, and what came with it. */
export interface Tone {
  /** Hz. */
  frequency: number
  /** dBFS. */
  level: number
  /** Standard deviation of the level over the recording, dB. */
  deviation: number
  /** What is left without the tone, 20 Hz to 20 kHz: noise and distortion, dBFS; `null` for nothing at all. */
  residual: number | null
  /** The same, A-weighted. */
  residualA: number | null
  /** Residual against the tone, dB. */
  thdN: number | null
  /** Harmonics up to 20 kHz, dBFS. */
  harmonics: { order: number; level: number }[]
  /** Of the stretch that was measured. */
  seconds: number
  /** Seconds of the tone that are not in it, since the stretch ends where something else is heard or something is lost. */
  leftOut: number
  /** Samples stand at full scale. */
  clipped: boolean
}

const MOST_HARMONICS = 10
/** The tone may sway by this much within the stretch that is looked at. */
const STEADINESS = { within: 1.5, least: 0.3 }
/**
 * What is left without the tone is looked at in blocks; one that is so far from most holds a knock, a click or a dropout (common
 * practice, no source).
 */
const ALIKE = { seconds: 0.25, within: 6, least: 4 }
/** What is under this, dBFS, is the rounding of a tone that was worked out, not recorded. */
const LEAST_REST = -130
/** A tone this far below what is left of the recording without it is none, dB. */
const LEAST_OVER = -20

/**
 * Measures a steady tone: its level (AES17), and what is left when it is fitted and taken out. That replaces the notch filter
 * of AES17, which takes a band of noise around the tone with it: this reads up to a few tenths of a dB more noise.
 */
export function measureTone(samples: Float64Array, sampleRate: number): Tone | WavFault {
  const { from, to } = longestSteady(samples, sampleRate, STEADINESS)
  const steady = samples.subarray(from, to)
  const undisturbed = withoutDisturbance(steady, sampleRate)
  const fit = fitSine(undisturbed, sampleRate)
  const level = fit && amplitudeToDbfs(fit.amplitude)
  if (!fit || level === null)
    return {
      code: 'no-tone',
      message: 'There is no tone in this channel. Check the channel, the cable and that the signal was playing.',
    }
  const meter = new SpectrumMeter(sampleRate)
  meter.frames(fit.residual, fit.residual.length)
  const spectrum = meter.end()
  const { flat, weighted } = weightedPower(spectrum)
  const [residual, residualA] = [meanSquareToDbfs(flat), meanSquareToDbfs(weighted)]
  if (residual !== null && level - residual < LEAST_OVER)
    return {
      code: 'no-tone',
      message:
        'The tone is buried in noise: nothing can be said of it. Check the channel and the cable, or play it louder.',
    }
  return {
    frequency: fit.frequency,
    level,
    deviation: fit.deviation,
    residual,
    residualA,
    thdN: residual === null ? null : residual - level,
    harmonics: spectrum ? harmonicsOf(spectrum.powers, spectrum.step, fit.frequency) : [],
    seconds: undisturbed.length / sampleRate,
    leftOut: (steady.length - undisturbed.length) / sampleRate,
    clipped: steady.some((x) => Math.abs(x) >= 0.99999),
  }
}

/** The longest part of a tone in which nothing but the tone and an even rest is heard. */
function withoutDisturbance(tone: Float64Array, sampleRate: number): Float64Array {
  const rest = fitSine(tone, sampleRate)?.residual
  const length = Math.round(ALIKE.seconds * sampleRate)
  const levels = rest
    ? blockPowers(rest, length).map((power) => Math.max(LEAST_REST, meanSquareToDbfs(power) ?? LEAST_REST))
    : []
  const calm = longestAlike(levels, ALIKE.within)
  return calm && calm.to - calm.from >= ALIKE.least ? samplesOf(calm, length, levels.length, tone) : tone
}

/** The power within two steps of each multiple of a frequency. */
function harmonicsOf(powers: Float64Array, step: number, frequency: number): Tone['harmonics'] {
  const found: Tone['harmonics'] = []
  for (
    let order = 2;
    order <= MOST_HARMONICS && order * frequency < Math.min(20_000, (powers.length - 3) * step);
    order++
  ) {
    const middle = Math.round((order * frequency) / step)
    let power = 0
    for (let k = middle - 2; k <= middle + 2; k++) power += powers[k] ?? 0
    const level = meanSquareToDbfs(power)
    if (level !== null) found.push({ order, level })
  }
  return found
}
