import { joined } from '../numeric/joined'
import { seededNormal } from '../numeric/random'

/** Levels are dBFS, AES17: a sine of 0 dBFS has the peak 1. */
const sineAmplitude = (level: number) => 10 ** (level / 20)
const frameCount = (sampleRate: number, seconds: number) => Math.round(sampleRate * seconds)

/** A sine of a frequency and level. */
export function sine(sampleRate: number, seconds: number, frequency: number, level: number, phase = 0): Float64Array {
  const amplitude = sineAmplitude(level)
  return Float64Array.from(
    { length: frameCount(sampleRate, seconds) },
    (_, i) => amplitude * Math.sin((2 * Math.PI * frequency * i) / sampleRate + phase),
  )
}

/** White noise of an RMS level in AES17 terms: 0 dBFS is the RMS of a full-scale sine. */
export function whiteNoise(sampleRate: number, seconds: number, level: number, seed: number): Float64Array {
  const next = seededNormal(seed)
  const deviation = sineAmplitude(level) / Math.SQRT2
  return Float64Array.from({ length: frameCount(sampleRate, seconds) }, () => deviation * next())
}

/** Lowest pole of the pink filter, Hz; below it the noise is white. */
const PINK_FROM = 5
/** A last zero takes away what sampling adds near half the rate, 1.3 dB at 0.42 of it (fitted). */
const PINK_TOP = -0.075

/**
 * Pink noise of an RMS level: white noise through poles and zeros in turn, half an octave apart, so that it falls by 3 dB an
 * octave, within 0.3 dB from 20 Hz to 0.42 of the sample rate.
 */
export function pinkNoise(sampleRate: number, seconds: number, level: number, seed: number): Float64Array {
  const next = seededNormal(seed)
  const samples = Float64Array.from({ length: frameCount(sampleRate, seconds) }, next)
  const root = (frequency: number) => Math.exp((-2 * Math.PI * frequency) / sampleRate)
  for (let f = PINK_FROM; f < sampleRate; f *= 2) poleAndZero(samples, root(f), root(f * Math.SQRT2))
  poleAndZero(samples, 0, PINK_TOP)
  const rms = Math.sqrt(samples.reduce((sum, x) => sum + x * x, 0) / Math.max(1, samples.length))
  const scale = sineAmplitude(level) / Math.SQRT2 / (rms || 1)
  for (let i = 0; i < samples.length; i++) samples[i] = (samples[i] as number) * scale
  return samples
}

/** y[n] = x[n] − zero·x[n−1] + pole·y[n−1], in place. */
function poleAndZero(samples: Float64Array, pole: number, zero: number): void {
  let [x1, y1] = [0, 0]
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i] as number
    y1 = x - zero * x1 + pole * y1
    x1 = x
    samples[i] = y1
  }
}

/** A logarithmic sweep: equal time for every octave (Farina, AES 108th Convention, 2000; from memory). */
export function logSweep(sampleRate: number, seconds: number, from: number, to: number, level: number): Float64Array {
  const amplitude = sineAmplitude(level)
  const rate = Math.log(to / from)
  return Float64Array.from(
    { length: frameCount(sampleRate, seconds) },
    (_, i) =>
      amplitude * Math.sin(((2 * Math.PI * from * seconds) / rate) * (Math.exp((i / sampleRate / seconds) * rate) - 1)),
  )
}

/** Feedback taps of maximum-length sequences by their order (primitive polynomials; tables). */
const TAPS: Record<number, readonly number[]> = {
  10: [10, 7],
  12: [12, 6, 4, 1],
  14: [14, 5, 3, 1],
  15: [15, 14],
  16: [16, 15, 13, 4],
  17: [17, 14],
  18: [18, 11],
}

/** A maximum-length sequence of 2^order − 1 samples of ± the level's peak: its correlation with itself is one spike. */
export function maximumLengthSequence(order: number, level: number): Float64Array {
  const taps = TAPS[order]
  if (!taps) throw new Error(`No maximum-length sequence of order ${order} is known here.`)
  const amplitude = sineAmplitude(level)
  let register = 1
  return Float64Array.from({ length: 2 ** order - 1 }, () => {
    const bit = register & 1
    let feedback = 0
    for (const tap of taps) feedback ^= (register >> (order - tap)) & 1
    register = (register >> 1) | (feedback << (order - 1))
    return bit ? amplitude : -amplitude
  })
}

/** Distances that never agree with each other: a lag by a pulse or more is not taken for the right one. */
const unevenly = (i: number) => 0.15 * ((i * i * 0.6180339887) % 1)

/** Short pulses at uneven distances of about `every` seconds: two samples up and one down, so that polarity shows. */
export function pulseTrain(sampleRate: number, seconds: number, every: number, level: number): Float64Array {
  const amplitude = sineAmplitude(level)
  const samples = new Float64Array(frameCount(sampleRate, seconds))
  for (let i = 0; ; i++) {
    const at = frameCount(sampleRate, (i + 0.5 + unevenly(i)) * every)
    if (at + 3 >= samples.length) return samples
    samples[at] = amplitude
    samples[at + 1] = amplitude
    samples[at + 2] = -amplitude / 2
  }
}

/** A maximum-length sequence several times over, with silence of different lengths between. */
export function sequenceRepeated(sampleRate: number, order: number, times: number, level: number): Float64Array {
  const once = maximumLengthSequence(order, level)
  return joined(
    Array.from({ length: times }, (_, i) => [new Float64Array(frameCount(sampleRate, 0.25 + unevenly(i + 1))), once])
      .flat()
      .concat(new Float64Array(frameCount(sampleRate, 0.5))),
  )
}

/** Length of the upward swing of a polarity pulse, and of the shallow one after it that makes its mean nothing. */
const SWING = 0.001
const TAIL = 0.02

/** Half a sine wave of a millisecond upwards, and a long shallow one downwards: which way a pulse goes stays visible behind any low cut. */
export function polarityPulses(sampleRate: number, seconds: number, every: number, level: number): Float64Array {
  const amplitude = sineAmplitude(level)
  const [swing, tail] = [frameCount(sampleRate, SWING), frameCount(sampleRate, TAIL)]
  // Sampled half sines of n samples add up to 1/sin(π/2n).
  const shallow = Math.sin(Math.PI / (2 * tail)) / Math.sin(Math.PI / (2 * swing))
  const samples = new Float64Array(frameCount(sampleRate, seconds))
  for (
    let at = frameCount(sampleRate, every / 2);
    at + swing + tail < samples.length;
    at += frameCount(sampleRate, every)
  ) {
    for (let i = 0; i < swing; i++) samples[at + i] = amplitude * Math.sin((Math.PI * (i + 0.5)) / swing)
    for (let i = 0; i < tail; i++)
      samples[at + swing + i] = -amplitude * shallow * Math.sin((Math.PI * (i + 0.5)) / tail)
  }
  return samples
}

/** Silence at the end of a step, s: it tells one step from the next where a knob makes up for the difference. */
const STEP_GAP = 0.15

/** Sines of several levels, one after the other, each with a short silence at its end: for the marks at a gain knob. */
export function staircase(
  sampleRate: number,
  stepSeconds: number,
  frequency: number,
  levels: readonly number[],
): Float64Array {
  const gap = new Float64Array(frameCount(sampleRate, STEP_GAP))
  const step = (level: number) => faded(sine(sampleRate, stepSeconds - STEP_GAP, frequency, level), sampleRate, 0.01)
  return joined(levels.flatMap((level) => [step(level), gap]))
}

/** Edges raised and lowered along a half cosine, so that nothing clicks. The samples are changed in place. */
export function faded(samples: Float64Array, sampleRate: number, seconds: number): Float64Array {
  const length = Math.min(frameCount(sampleRate, seconds), samples.length >> 1)
  for (let i = 0; i < length; i++) {
    const gain = 0.5 - 0.5 * Math.cos((Math.PI * i) / length)
    samples[i] = (samples[i] as number) * gain
    samples[samples.length - 1 - i] = (samples[samples.length - 1 - i] as number) * gain
  }
  return samples
}
