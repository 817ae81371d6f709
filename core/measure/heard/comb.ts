import { Fft } from '../../numeric/fft'
import { median } from '../../numeric/statistics'

/** A sound that is in a recording twice. */
export interface HeardComb {
  /** How much later, ms. */
  delayMs: number
  /** First notch, 1/(2τ), Hz. */
  notch: number
  /** The softer of the two against the louder, dB; never above 0. */
  difference: number
}

/** 1.4 s at 48 kHz: delays up to a third of that are told. */
const SIZE = 2 ** 16
/** The shortest delay, ms: a shorter one is part of how the room or the box sounds. */
const SHORTEST = 0.25
/** The longest, ms. */
const LONGEST = 400
/** Over the cepstrum around it by that factor (common practice, no source). */
const STANDS_OUT = 9
/** Less than that of the sound itself, −18 dB, is no second one that matters. */
const LEAST = 0.12
/** A voice’s pitch shows in the cepstrum too, but is not as sharp as an echo: frames to either side that it has to fall within. */
const SHARP = 6

/**
 * A delayed copy, found in the power cepstrum: log(1 + a² + 2a·cos ωτ) is a wave in the logarithm of the spectrum, and its transform a
 * spike at τ whose height is a (Bogert, Healy and Tukey, 1963; from memory). The logarithms of many stretches are averaged, so that what
 * the sound itself does smears and the delay stays.
 */
export function findComb(samples: Float64Array, sampleRate: number): HeardComb | null {
  if (samples.length < SIZE / 2) return null
  const cepstrum = cepstrumOf(samples)
  if (!cepstrum) return null
  const [from, to] = [(SHORTEST * sampleRate) / 1000, Math.min((LONGEST * sampleRate) / 1000, SIZE / 3)].map(
    Math.round,
  ) as [number, number]
  let best: { at: number; score: number } | null = null
  for (let at = from; at < to; at++) {
    const height = cepstrum[at] as number
    if (height < LEAST || height < (cepstrum[at - 1] as number) || height < (cepstrum[at + 1] as number)) continue
    const beside = Math.max(cepstrum[at - SHARP] as number, cepstrum[at + SHARP] as number, 0)
    const around: number[] = []
    for (let off = 12; off <= 60; off++)
      around.push(Math.abs(cepstrum[Math.max(1, at - off)] as number), Math.abs(cepstrum[at + off] as number))
    const usual = median(around)
    const score = height / Math.max(usual, 1e-4)
    if (score < STANDS_OUT || beside > 0.4 * height || isPitch(cepstrum, at)) continue
    if (!best || height > (cepstrum[best.at] as number)) best = { at, score }
  }
  if (!best) return null
  const lag = vertex(cepstrum, best.at)
  // What falls between two frames is shared by them.
  const height = spread(cepstrum, best.at) / overlap(lag / SIZE)
  const delayMs = (1000 * lag) / sampleRate
  return { delayMs, notch: 500 / delayMs, difference: 20 * Math.log10(Math.min(1, height)) }
}

/**
 * A steady tone’s period stands in the cepstrum too, with all its multiples on the same side; an echo’s second one is on the other: the
 * logarithm’s series is a − a²/2 + a³/3.
 */
const isPitch = (cepstrum: Float64Array, at: number): boolean => {
  const second = Math.max(...[-1, 0, 1].map((off) => cepstrum[2 * at + off] ?? 0))
  return second > 0.15 * (cepstrum[at] as number)
}

function cepstrumOf(samples: Float64Array): Float64Array | null {
  const fft = new Fft(SIZE)
  const logs = new Float64Array(SIZE)
  const starts: number[] = []
  for (let start = 0; start + SIZE / 2 <= samples.length; start += SIZE / 2) starts.push(start)
  const powers = starts.map((start) => samples.subarray(start, start + SIZE).reduce((sum, x) => sum + x * x, 0))
  const loud = 0.1 * Math.max(...powers)
  let count = 0
  starts.forEach((start, i) => {
    if ((powers[i] as number) < loud || loud === 0) return
    const re = new Float64Array(SIZE)
    const im = new Float64Array(SIZE)
    const length = Math.min(SIZE, samples.length - start)
    for (let n = 0; n < length; n++)
      re[n] = (samples[start + n] as number) * (0.5 - 0.5 * Math.cos((2 * Math.PI * n) / length))
    fft.forward(re, im)
    for (let k = 0; k < SIZE; k++)
      logs[k] = (logs[k] as number) + Math.log((re[k] as number) ** 2 + (im[k] as number) ** 2 + 1e-20)
    count++
  })
  if (count === 0) return null
  const im = new Float64Array(SIZE)
  for (let k = 0; k < SIZE; k++) logs[k] = (logs[k] as number) / count
  fft.forward(logs, im)
  // A real and even sequence: its transform is real. c[τ] = a for a cosine of height 2a in the logarithm of the power.
  return logs.map((x) => x / SIZE)
}

/** Where a parabola through three values has its top. */
function vertex(values: Float64Array, at: number): number {
  const [a, b, c] = [values[at - 1], values[at], values[at + 1]] as [number, number, number]
  const bend = a - 2 * b + c
  return bend === 0 ? at : at + (a - c) / (2 * bend)
}

/** The height that a spike between two frames would have on one of them: that of a sinc is shared. */
function spread(values: Float64Array, at: number): number {
  const off = vertex(values, at) - at
  const sinc = off === 0 ? 1 : Math.sin(Math.PI * off) / (Math.PI * off)
  return (values[at] as number) / sinc
}

/** Of a delayed copy only what falls into the same window is seen: a Hann window’s overlap with itself, so far apart. */
const overlap = (part: number): number =>
  (1 - part) * (2 / 3 + Math.cos(2 * Math.PI * part) / 3) + Math.sin(2 * Math.PI * part) / (2 * Math.PI)
