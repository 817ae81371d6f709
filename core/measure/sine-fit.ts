import { Fft } from '../numeric/fft'
import { mean, standardDeviation } from '../numeric/statistics'

/** A sine found in samples. */
export interface SineFit {
  /** Hz. */
  frequency: number
  /** Peak, 1 for full scale: the mean of those of the blocks. */
  amplitude: number
  /** Standard deviation of the blocks' levels, dB. */
  deviation: number
  /** What is left when the sine is taken out. */
  residual: Float64Array
}

/** Longest transform that the first guess of the frequency is made with. */
const LONGEST = 2 ** 16
/** The sine is taken out block by block, so that a level that creeps leaves nothing behind. */
const BLOCK_SECONDS = 0.5

/**
 * Fits a sine to samples by least squares (IEEE Std 1057, four-parameter method in spirit: the frequency from the turning of
 * the blocks' phase, then amplitude, phase and mean of each block).
 * @returns `null` where the samples are too few or hold no sine that stands out.
 */
export function fitSine(samples: Float64Array, sampleRate: number): SineFit | null {
  if (samples.length < 256) return null
  const guess = strongestFrequency(samples, sampleRate)
  if (guess === null) return null
  const blocks = blocksOf(samples.length, Math.max(256, Math.round(BLOCK_SECONDS * sampleRate)))
  let frequency = guess
  for (let round = 0; round < 3; round++) frequency += frequencyError(samples, sampleRate, frequency)
  const omega = (2 * Math.PI * frequency) / sampleRate
  const residual = new Float64Array(samples.length)
  const amplitudes = blocks.map(({ from, to }) => {
    const { cos, sin, constant } = project(samples, from, to, omega)
    for (let i = from; i < to; i++)
      residual[i] =
        (samples[i] as number) - constant - cos * Math.cos(omega * (i - from)) - sin * Math.sin(omega * (i - from))
    return Math.hypot(cos, sin)
  })
  return {
    frequency,
    amplitude: mean(amplitudes),
    deviation: standardDeviation(amplitudes.map((each) => 20 * Math.log10(each))),
    residual,
  }
}

/** Blocks of nearly equal length that leave no sample out. */
function blocksOf(length: number, wanted: number) {
  const count = Math.max(1, Math.floor(length / wanted))
  return Array.from({ length: count }, (_, i) => ({
    from: Math.floor((i * length) / count),
    to: Math.floor(((i + 1) * length) / count),
  }))
}

/** From the highest line of a windowed spectrum, refined by a parabola through the logarithms of its neighbours. */
function strongestFrequency(samples: Float64Array, sampleRate: number): number | null {
  const size = 2 ** Math.floor(Math.log2(Math.min(LONGEST, samples.length)))
  const from = (samples.length - size) >> 1
  const fft = new Fft(size)
  const re = Float64Array.from(
    { length: size },
    (_, i) => (samples[from + i] as number) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size)),
  )
  const im = new Float64Array(size)
  fft.forward(re, im)
  const power = (k: number) => (re[k] as number) ** 2 + (im[k] as number) ** 2
  let best = 3
  for (let k = 3; k < size / 2 - 1; k++) if (power(k) > power(best)) best = k
  if (power(best) === 0) return null
  const [left, top, right] = [power(best - 1), power(best), power(best + 1)].map((each) =>
    Math.log(each || Number.MIN_VALUE),
  ) as [number, number, number]
  const bend = left - 2 * top + right
  return ((best + (bend === 0 ? 0 : (left - right) / (2 * bend))) * sampleRate) / size
}

/** How far a frequency is off, from the phase of blocks that grow apart: Hz. */
function frequencyError(samples: Float64Array, sampleRate: number, frequency: number): number {
  const omega = (2 * Math.PI * frequency) / sampleRate
  // Blocks short enough that a wrong guess turns the phase by less than half a turn from one to the next.
  const blocks = blocksOf(
    samples.length,
    Math.max(128, Math.round((8 * sampleRate) / frequency), Math.min(Math.floor(samples.length / 4), LONGEST / 16)),
  )
  if (blocks.length < 2) return 0
  let before = 0
  const phases = blocks.map(({ from, to }, i) => {
    const { cos, sin } = project(samples, from, to, omega)
    const raw = Math.atan2(-sin, cos) - omega * from
    before = i === 0 ? raw : raw - 2 * Math.PI * Math.round((raw - before) / (2 * Math.PI))
    return before
  })
  const [middleAt, middlePhase] = [mean(blocks.map(({ from }) => from)), mean(phases)]
  let [up, down] = [0, 0]
  blocks.forEach(({ from }, i) => {
    up += (from - middleAt) * ((phases[i] as number) - middlePhase)
    down += (from - middleAt) ** 2
  })
  return ((up / down) * sampleRate) / (2 * Math.PI)
}

/** Least squares of cos·cos(ωn) + sin·sin(ωn) + constant over a block, n from its beginning. */
function project(samples: Float64Array, from: number, to: number, omega: number) {
  const [turnCos, turnSin] = [Math.cos(omega), Math.sin(omega)]
  let c = 1
  let s = 0
  let [cc, ss, cs, c1, s1, xc, xs, x1] = [0, 0, 0, 0, 0, 0, 0, 0]
  for (let i = from; i < to; i++) {
    const x = samples[i] as number
    cc += c * c
    ss += s * s
    cs += c * s
    c1 += c
    s1 += s
    xc += x * c
    xs += x * s
    x1 += x
    const turned = c * turnCos - s * turnSin
    s = s * turnCos + c * turnSin
    c = turned
  }
  const n = to - from
  // Cramer's rule for the three normal equations.
  const det = cc * (ss * n - s1 * s1) - cs * (cs * n - s1 * c1) + c1 * (cs * s1 - ss * c1)
  if (det === 0) return { cos: 0, sin: 0, constant: n > 0 ? x1 / n : 0 }
  return {
    cos: (xc * (ss * n - s1 * s1) - cs * (xs * n - s1 * x1) + c1 * (xs * s1 - ss * x1)) / det,
    sin: (cc * (xs * n - x1 * s1) - xc * (cs * n - s1 * c1) + c1 * (cs * x1 - xs * c1)) / det,
    constant: (cc * (ss * x1 - s1 * xs) - cs * (cs * x1 - xs * c1) + xc * (cs * s1 - ss * c1)) / det,
  }
}
