import { power, powerDifference } from '../numeric/power'
import { mean } from '../numeric/statistics'

/** The noise that was read at a gain, and the level that reads 0 dBFS there. */
export interface NoiseReading {
  gain: number
  /** dBFS(A). */
  level: number
  /** dBu. */
  fullScale: number
}

/** An input's noise, told apart into what the gain amplifies and what it does not. */
export interface NoiseByGain {
  /** dBFS(A). */
  converter: number
  /** Whether the converter leads at the lowest gain: only then is it told well. */
  sure: boolean
  /** What comes before the converter, as input noise, dBu(A), by rising gain; gains at which the converter covers it are not there. */
  input: { gain: number; level: number }[]
}

/** Gains that lie closer together tell nothing apart, dB. */
const LEAST_RANGE = 6
/** A part of the whole below this share is not told from it. */
const LEAST_SHARE = 0.2

/**
 * The noise at several gains is a·10^(−FS/10) + c: the input's part grows with the gain, the converter's stays. Both by least
 * squares of the relative errors, since the scatter of a noise level is in dB; then the converter's part is taken out at each
 * gain by itself, since a preamp is often noisier at lower gains.
 * @returns `null` with a single gain, or where the two cannot be told apart.
 */
export function noiseByGain(readings: readonly NoiseReading[]): NoiseByGain | null {
  const gains = [...new Set(readings.map((each) => each.gain))].sort((a, b) => a - b)
  if ((gains.at(-1) as number) - (gains[0] as number) < LEAST_RANGE) return null
  let [aa, ac, cc, a1, c1] = [0, 0, 0, 0, 0]
  for (const { level, fullScale } of readings) {
    const [grown, still] = [power(-fullScale) / power(level), 1 / power(level)]
    aa += grown * grown
    ac += grown * still
    cc += still * still
    a1 += grown
    c1 += still
  }
  const det = aa * cc - ac * ac
  const [amplified, still] = [(a1 * cc - c1 * ac) / det, (aa * c1 - ac * a1) / det]
  if (!(det > 0 && amplified > 0 && still > 0)) return null
  const converter = 10 * Math.log10(still)
  const input = gains.flatMap((gain) => {
    const own = readings.filter((each) => each.gain === gain)
    const level = mean(own.map((each) => each.level))
    const rest = powerDifference(level, converter)
    return rest === null || power(rest - level) < LEAST_SHARE
      ? []
      : [{ gain, level: rest + (own[0] as NoiseReading).fullScale }]
  })
  const lowest = readings.filter((each) => each.gain === gains[0])
  return input.length === 0
    ? null
    : { converter, sure: power(converter - mean(lowest.map((each) => each.level))) >= 0.5, input }
}

/**
 * The input's part at a gain, dBu(A): between two gains in proportion, below them on the line through the lowest and one far
 * enough from it, and above them as at the highest.
 */
export function inputNoiseAt({ input }: NoiseByGain, gain: number): number {
  const [first, last] = [input[0], input.at(-1)] as [Part, Part]
  if (gain >= last.gain) return last.level
  if (gain > first.gain)
    return between(
      input.findLast((each) => each.gain <= gain) as Part,
      input.find((each) => each.gain > gain) as Part,
      gain,
    )
  const other = input.find((each) => each.gain >= first.gain + LEAST_RANGE)
  return other ? between(first, other, gain) : first.level
}
type Part = NoiseByGain['input'][number]
const between = (a: Part, b: Part, gain: number) =>
  a.level + ((b.level - a.level) * (gain - a.gain)) / (b.gain - a.gain)

/** The gain over the lowest at which the preamp's own noise, without that of the resistor before it, passes the converter's. */
export function crossoverOf(
  noise: NoiseByGain,
  fullScale: number,
  gainMin: number,
  resistorNoise: number | null,
): number | null {
  let gain = gainMin
  // Noise changes less with gain than gain itself, so this settles.
  for (let round = 0; round < 40; round++) {
    const own =
      resistorNoise === null ? inputNoiseAt(noise, gain) : powerDifference(inputNoiseAt(noise, gain), resistorNoise)
    if (own === null) return null
    gain = fullScale + noise.converter - own + gainMin
  }
  return gain
}
