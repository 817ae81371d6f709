import { meanSquareToDbfs } from './block-levels'
import { SpectrumMeter, weightedPower } from './levels/spectrum'
import type { WavFault } from './wav/format'

/** The spectrum of a stretch of one channel. */
export interface StretchSpectrum {
  /** Third octaves of IEC 61260-1, base ten: exact middle frequency, Hz, and power in the band, dBFS; `null` for silence. */
  thirds: { frequency: number; level: number | null }[]
  /** Narrow bands for the eye, an eighth of a third octave wide or one step where that is wider: power in each, dBFS. */
  narrow: { frequency: number; level: number | null }[]
  /** Width of an analysis step, Hz. */
  step: number
  /** Of the whole stretch, 20 Hz to 20 kHz, dBFS. */
  level: number | null
  levelA: number | null
  seconds: number
}

/** Band numbers of 20 Hz and 20 kHz: the middle frequency is 10^(number/10) Hz. */
const [LOWEST, HIGHEST] = [13, 43]
const NARROW = 8

/** Welch's method over a stretch; bands share a step that lies across their edge in proportion. */
export function measureSpectrum(samples: Float64Array, sampleRate: number): StretchSpectrum | WavFault {
  if (samples.length < sampleRate / 10)
    return {
      code: 'too-short',
      message: 'The stretch holds less than a tenth of a second. Choose a longer one within the recording.',
    }
  const meter = new SpectrumMeter(sampleRate)
  meter.frames(samples, samples.length)
  const spectrum = meter.end() ?? { step: sampleRate, powers: new Float64Array(1) }
  const { flat, weighted } = weightedPower(spectrum)
  const band = (frequency: number, ratio: number) => ({
    frequency,
    level: meanSquareToDbfs(powerBetween(spectrum, frequency / ratio, frequency * ratio)),
  })
  const highest = sampleRate / 2
  const thirds = numbers(LOWEST, HIGHEST)
    .map((n) => 10 ** (n / 10))
    .filter((f) => f * 10 ** 0.05 <= highest)
    .map((f) => band(f, 10 ** 0.05))
  const ratio = 10 ** (0.05 / NARROW)
  const narrow = numbers(LOWEST * NARROW, HIGHEST * NARROW)
    .map((n) => 10 ** (n / 10 / NARROW))
    .filter((f) => f * ratio <= highest)
  return {
    thirds,
    step: spectrum.step,
    level: meanSquareToDbfs(flat),
    levelA: meanSquareToDbfs(weighted),
    seconds: samples.length / sampleRate,
    narrow: narrow
      .filter(
        (f, i) =>
          i === 0 ||
          f * (ratio - 1 / ratio) >= spectrum.step ||
          Math.round(f / spectrum.step) !== Math.round((narrow[i - 1] as number) / spectrum.step),
      )
      .map((f) =>
        f * (ratio - 1 / ratio) >= spectrum.step
          ? band(f, ratio)
          : { frequency: f, level: meanSquareToDbfs(spectrum.powers[Math.round(f / spectrum.step)] ?? 0) },
      ),
  }
}

const numbers = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, i) => from + i)

/** Power between two frequencies; a step stands for the frequencies half a step to either side. */
export function powerBetween(
  { step, powers }: { step: number; powers: Float64Array },
  low: number,
  high: number,
): number {
  let sum = 0
  for (let k = Math.max(0, Math.round(low / step)); k <= Math.min(powers.length - 1, Math.round(high / step)); k++) {
    const part = Math.min(high, (k + 0.5) * step) - Math.max(low, (k - 0.5) * step)
    if (part > 0) sum += (powers[k] as number) * Math.min(1, part / step)
  }
  return sum
}
