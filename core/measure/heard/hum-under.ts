import { Fft } from '../../numeric/fft'
import { median } from '../../numeric/statistics'
import { amplitudeToDbfs, meanSquareToDbfs } from '../block-levels'
import type { Hum, HumLine } from '../hum'

/** The mains keeps its frequency this well, Hz, apart from rare events. */
const SWAY = 0.5
/** Frequencies are tried in steps so fine that the highest line stays in phase over the whole recording, Hz. */
const STEP = 0.002
/** Multiples that are followed: up to 600 Hz at 50 Hz. */
const MOST_LINES = 12
/** Everything that is looked for lies far below half of that rate, Hz. */
const LOW_RATE = 4000
/** A stretch of the recording, s, and its transform: four points to each of its own steps. */
const STRETCH = 1
const SIZE = 16_384
/** Noise beside a line is looked for so far away from it, Hz. */
const [FROM, TO] = [3.5, 10]
/** Fewer stretches show no line that stays. */
const LEAST_STRETCHES = 6
/** A line is there from so many times the power on that noise would leave of it; alone it has to be far over that. */
const [STANDS_OUT, STANDS_OUT_ALONE] = [20, 200]

/** What is at a frequency in one stretch, its phase taken at the stretch’s middle. */
interface Stretch {
  /** s. */
  middle: number
  re: Float64Array
  im: Float64Array
  power: Float64Array
}

/**
 * Mains hum under programme: its lines keep level and phase from stretch to stretch, and what is played does not. Each line is the mean
 * over all stretches, turned back by its own phase and weighed by how quiet it is beside it, so that rests count most and none is
 * needed. @returns `null` where no line stays
 */
export function findHumUnder(samples: Float64Array, sampleRate: number): Hum | null {
  const { low, rate } = lowered(samples, sampleRate)
  const stretches = stretchesOf(low, rate)
  if (stretches.length < LEAST_STRETCHES) return null
  const found = ([50, 60] as const).map((mains) => familyOf(mains, stretches, rate))
  return found.reduce<Hum | null>((best, each) => (each && (!best || each.level > best.level) ? each : best), null)
}

/** The lowest frequencies alone: a sliding mean three times over, then every so many frames. */
function lowered(samples: Float64Array, sampleRate: number): { low: Float64Array; rate: number } {
  const every = Math.max(1, Math.floor(sampleRate / LOW_RATE))
  let now = samples
  for (let pass = 0; pass < 3 && every > 1; pass++) now = slidingMean(now, every)
  const low = new Float64Array(Math.floor(now.length / every))
  for (let i = 0; i < low.length; i++) low[i] = now[i * every] as number
  return { low, rate: sampleRate / every }
}

function slidingMean(samples: Float64Array, width: number): Float64Array {
  const out = new Float64Array(samples.length)
  let sum = 0
  for (let i = 0; i < samples.length; i++) {
    sum += (samples[i] as number) - (samples[i - width] ?? 0)
    out[i] = sum / width
  }
  return out
}

function stretchesOf(low: Float64Array, rate: number): Stretch[] {
  const length = Math.round(STRETCH * rate)
  const window = Float64Array.from({ length }, (_, n) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (n + 0.5)) / length))
  const fft = new Fft(SIZE)
  const found: Stretch[] = []
  for (let from = 0; from + length <= low.length; from += length / 2) {
    const start = Math.round(from)
    const [re, im] = [new Float64Array(SIZE), new Float64Array(SIZE)]
    // The middle of the stretch stands first, so that a line's phase is the same on all points around it.
    for (let n = 0; n < length; n++)
      re[((n - length / 2 + SIZE) % SIZE) | 0] = (low[start + n] as number) * (window[n] as number) * (4 / length)
    fft.forward(re, im)
    const points = Math.ceil(((MOST_LINES * 61 + TO) * SIZE) / rate)
    const power = Float64Array.from({ length: points }, (_, k) => (re[k] as number) ** 2 + (im[k] as number) ** 2)
    found.push({ middle: (start + length / 2) / rate, re, im, power })
  }
  return found
}

/** A line as it is over all stretches. */
interface Line {
  amplitude: number
  /** Its power against what noise would leave of it. */
  standing: number
}

function familyOf(mains: 50 | 60, stretches: readonly Stretch[], rate: number): Hum | null {
  const noises = Array.from({ length: MOST_LINES }, (_, i) =>
    stretches.map(({ power }) => noiseBeside(power, (i + 1) * mains, rate)),
  )
  let best = { frequency: 0, score: 0 }
  for (let frequency = mains - SWAY; frequency <= mains + SWAY; frequency += STEP) {
    let score = 0
    for (let order = 1; order <= MOST_LINES; order++) {
      const { standing } = lineAt(order * frequency, stretches, noises[order - 1] as number[], rate)
      if (standing > STANDS_OUT) score += Math.log(standing)
    }
    if (score > best.score) best = { frequency, score }
  }
  if (best.score === 0) return null
  const lines: HumLine[] = []
  let [total, standing] = [0, 0]
  for (let order = 1; order <= MOST_LINES; order++) {
    const line = lineAt(order * best.frequency, stretches, noises[order - 1] as number[], rate)
    const level = amplitudeToDbfs(line.amplitude)
    if (line.standing < STANDS_OUT || level === null) continue
    lines.push({ order, frequency: order * best.frequency, level, over: Math.min(200, 10 * Math.log10(line.standing)) })
    total += line.amplitude ** 2 / 2
    standing = Math.max(standing, line.standing)
  }
  const level = meanSquareToDbfs(total)
  const isThere =
    lines.length > 1 || (lines.length === 1 && (lines[0] as HumLine).order <= 2 && standing > STANDS_OUT_ALONE)
  return isThere && level !== null ? { mains, frequency: best.frequency, lines, level } : null
}

/** Mean power of the noise around a line in one stretch: noise scatters, and its mean is 1/ln 2 of the median. */
function noiseBeside(power: Float64Array, frequency: number, rate: number): number {
  const point = (hertz: number) => Math.round((hertz * SIZE) / rate)
  const around: number[] = []
  for (let k = point(FROM); k <= point(TO); k += 2)
    around.push(power[point(frequency) - k] ?? 0, power[point(frequency) + k] ?? 0)
  return median(around) / Math.LN2 + 1e-30
}

function lineAt(frequency: number, stretches: readonly Stretch[], noises: readonly number[], rate: number): Line {
  const place = (frequency * SIZE) / rate
  const k = Math.floor(place)
  const part = place - k
  const turned = stretches.map((each, i): Turned => {
    const x = (1 - part) * (each.re[k] as number) + part * (each.re[k + 1] as number)
    const y = (1 - part) * (each.im[k] as number) + part * (each.im[k + 1] as number)
    const angle = -2 * Math.PI * frequency * each.middle
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)]
    return { re: x * cos - y * sin, im: x * sin + y * cos, noise: noises[i] as number }
  })
  // A note that comes by the line is far off in its stretches: they count the less, the further off they are.
  let mean = { re: 0, im: 0, weights: 0 }
  for (let round = 0; round < ROUNDS; round++) mean = meanOf(turned, mean)
  const power = mean.re ** 2 + mean.im ** 2
  return { amplitude: Math.sqrt(power), standing: power * mean.weights }
}
const ROUNDS = 3

/** What is at a line’s frequency in one stretch, turned back to the beginning. */
interface Turned {
  re: number
  im: number
  noise: number
}
const apart = (own: Turned, mean: { re: number; im: number }): number =>
  (own.re - mean.re) ** 2 + (own.im - mean.im) ** 2

function meanOf(turned: readonly Turned[], before: { re: number; im: number }) {
  let [re, im, weights] = [0, 0, 0]
  for (const own of turned) {
    const weight = 1 / (own.noise + apart(own, before))
    re += weight * own.re
    im += weight * own.im
    weights += weight
  }
  return { re: re / weights, im: im / weights, weights }
}
