import { Fft, powerOfTwo } from '../numeric/fft'
import { halfRange, mean } from '../numeric/statistics'
import { burstsOf } from './bursts'

/** What a loopback recording says of the way from the reference to the return. */
export interface Loopback {
  lagFrames: number
  milliseconds: number
  polarity: 1 | -1
  /** Return against reference, dB. */
  level: number
  /**
   * How far the correlation’s maximum stands over its next highest elsewhere: 1 − next/maximum, 0 to 1. From 0.5 on, twice as high, it is
   * beyond doubt.
   */
  confidence: number
  /** The lags one by one, where the signal came several times with silence between; else the one. */
  repeats: number[]
  /** Half the range of the repeats, frames. */
  spreadFrames: number
  /**
   * How the lag grows with time, parts per million: positive where the return falls more and more behind; `null` with less than
   * three repeats.
   */
  driftPpm: number | null
}

/** The lag found once, over the whole of the samples. */
export type Lag = Omit<Loopback, 'repeats' | 'spreadFrames' | 'driftPpm'>

/** A correlation within so many frames of its maximum belongs to it. */
const NEIGHBOURHOOD = 16

/** Around a burst this much of the return is looked at, s: no repeat lies farther off than that. */
const AROUND = 0.01
const MOST_BURSTS = 400
/** Under this the whole recording does not agree with itself at one lag, though its bursts may each by themselves. */
const AGREES = 0.5

/**
 * The lag of one channel behind another, from the whole recording and then from each burst by itself, so that repeats show
 * how far it can be trusted. The lag given is the mean of the repeats. Where the whole agrees at no one lag, as with two
 * clocks, the outline of the bursts says where each of them is to be looked for.
 * @returns `null` where one of the two is silent.
 */
export function measureLoopback(reference: Float64Array, returned: Float64Array, sampleRate: number): Loopback | null {
  const whole = findLag(reference, returned, sampleRate)
  if (!whole) return null
  const found = burstsOf(reference, sampleRate)
  const bursts = found.length <= MOST_BURSTS ? found : []
  if (whole.confidence < AGREES && bursts.length > 2) {
    const passes = passLags(reference, returned, sampleRate, bursts, outlineLag(reference, returned, sampleRate))
    const confidence = Math.min(...passes.map((pass) => pass.confidence))
    if (passes.length > 2 && confidence > AGREES)
      return summary({ ...(passes[0] as Pass), confidence }, passes, sampleRate)
  }
  return summary(
    whole,
    bursts.length > 1 ? passLags(reference, returned, sampleRate, bursts, whole.lagFrames) : [],
    sampleRate,
  )
}

/** One burst's lag, and where it begins. */
interface Pass extends Lag {
  at: number
}

/** The lag of every burst whose return is whole, sought near an expected one. */
function passLags(
  reference: Float64Array,
  returned: Float64Array,
  sampleRate: number,
  bursts: readonly { from: number; to: number }[],
  expected: number,
): Pass[] {
  const margin = Math.round(AROUND * sampleRate)
  return bursts.flatMap(({ from, to }) => {
    const start = Math.round(from + expected) - margin
    const end = Math.round(to + expected) + margin
    const lag =
      start < 0 || end > returned.length
        ? null
        : findLag(reference.subarray(from, to), returned.subarray(start, end), sampleRate)
    return lag ? [{ ...lag, lagFrames: lag.lagFrames + start - from, at: from }] : []
  })
}

function summary(lag: Lag, passes: readonly Pass[], sampleRate: number): Loopback {
  const { polarity, level, confidence } = lag
  const repeats = passes.length > 1 ? passes.map((pass) => pass.lagFrames) : [lag.lagFrames]
  const lagFrames = mean(repeats)
  return {
    lagFrames,
    milliseconds: (1000 * lagFrames) / sampleRate,
    polarity,
    level,
    confidence,
    repeats,
    spreadFrames: halfRange(repeats),
    driftPpm: repeats.length < 3 ? null : 1e6 * slope(passes),
  }
}

/** Frames that the outline of a signal takes together. */
const OUTLINE = 32

/** The lag of the outlines, to half a millisecond or so: it stays where two clocks drift apart within a recording. */
function outlineLag(reference: Float64Array, returned: Float64Array, sampleRate: number): number {
  const outline = (samples: Float64Array) => {
    const sizes = Float64Array.from({ length: Math.floor(samples.length / OUTLINE) }, (_, i) =>
      samples.subarray(i * OUTLINE, (i + 1) * OUTLINE).reduce((sum, x) => sum + Math.abs(x), 0),
    )
    const middle = sizes.reduce((sum, x) => sum + x, 0) / sizes.length
    return sizes.map((x) => x - middle)
  }
  return OUTLINE * (findLag(outline(reference), outline(returned), sampleRate / OUTLINE)?.lagFrames ?? 0)
}

/** Frames of lag for each frame of time. */
function slope(passes: readonly Pass[]): number {
  const [at, lag] = [mean(passes.map((each) => each.at)), mean(passes.map((each) => each.lagFrames))]
  const [up, down] = passes.reduce(
    ([u, d], each) => [u + (each.at - at) * (each.lagFrames - lag), d + (each.at - at) ** 2],
    [0, 0],
  )
  return down === 0 ? 0 : up / down
}

/**
 * The lag of one stretch behind another: the maximum of their cross-correlation in size, refined below one frame: the
 * correlation is worked out from its spectrum between the frames too, and its maximum sought there.
 * @returns `null` where one of the two is silent.
 */
export function findLag(reference: Float64Array, returned: Float64Array, sampleRate: number): Lag | null {
  const energy = (samples: Float64Array) => samples.reduce((sum, x) => sum + x * x, 0)
  const [sent, got] = [energy(reference), energy(returned)]
  if (sent === 0 || got === 0) return null
  const size = powerOfTwo(reference.length + returned.length)
  const fft = new Fft(size)
  const padded = (samples: Float64Array) => {
    const re = new Float64Array(size)
    re.set(samples)
    const im = new Float64Array(size)
    fft.forward(re, im)
    return { re, im }
  }
  const [a, b] = [padded(reference), padded(returned)]
  const [re, im] = [new Float64Array(size), new Float64Array(size)]
  for (let k = 0; k < size; k++) {
    const ar = a.re[k] as number
    const ai = a.im[k] as number
    const br = b.re[k] as number
    const bi = b.im[k] as number
    re[k] = ar * br + ai * bi
    im[k] = ar * bi - ai * br
  }
  const [specRe, specIm] = [re.slice(), im.slice()]
  fft.inverse(re, im)
  let best = 0
  for (let i = 1; i < size; i++) if (Math.abs(re[i] as number) > Math.abs(re[best] as number)) best = i
  const top = re[best] as number
  let next = 0
  for (let i = 0; i < size; i++) {
    const apart = Math.min(Math.abs(i - best), size - Math.abs(i - best))
    if (apart > NEIGHBOURHOOD) next = Math.max(next, Math.abs(re[i] as number))
  }
  const lag = refined(specRe, specIm, best)
  const height = Math.abs(at(specRe, specIm, lag, size))
  const signed = lag > size / 2 ? lag - size : lag
  return {
    lagFrames: signed,
    milliseconds: (1000 * signed) / sampleRate,
    polarity: top < 0 ? -1 : 1,
    level: 20 * Math.log10(height / sent),
    // Between frames the maximum can lie a little under its neighbour on a frame.
    confidence: height > 0 ? Math.max(0, 1 - next / height) : 0,
  }
}

/** The correlation at any fraction of a frame is the sum of its spectrum there: the maximum is sought between the frames. */
function refined(re: Float64Array, im: Float64Array, best: number): number {
  const size = re.length
  const sign = Math.sign(at(re, im, best, size)) || 1
  const value = (lag: number) => sign * at(re, im, lag, size)
  let [low, high] = [best - 1, best + 1]
  // Golden section: the correlation of a band-limited signal has one maximum within a frame of the highest sample.
  const golden = (Math.sqrt(5) - 1) / 2
  let [c, d] = [high - golden * (high - low), low + golden * (high - low)]
  let [fc, fd] = [value(c), value(d)]
  for (let i = 0; i < 22; i++) {
    if (fc > fd) {
      high = d
      d = c
      fd = fc
      c = high - golden * (high - low)
      fc = value(c)
    } else {
      low = c
      c = d
      fc = fd
      d = low + golden * (high - low)
      fd = value(d)
    }
  }
  return (low + high) / 2
}

/** Σ over the spectrum at a fractional lag; the spectrum of real signals is conjugate-symmetric. */
function at(re: Float64Array, im: Float64Array, lag: number, size: number): number {
  const step = (2 * Math.PI * lag) / size
  const [cos, sin] = [Math.cos(step), Math.sin(step)]
  let [c, s] = [1, 0]
  let sum = re[0] as number
  for (let k = 1; k < size / 2; k++) {
    const turned = c * cos - s * sin
    s = s * cos + c * sin
    c = turned
    // The turning factor is set anew now and then, before its rounding tells.
    if ((k & 1023) === 0) {
      c = Math.cos(step * k)
      s = Math.sin(step * k)
    }
    sum += 2 * ((re[k] as number) * c - (im[k] as number) * s)
  }
  return sum / size
}
