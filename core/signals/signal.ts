import {
  faded,
  logSweep,
  pinkNoise,
  polarityPulses,
  pulseTrain,
  sequenceRepeated,
  sine,
  staircase,
  whiteNoise,
} from './generate'
import type { SampleFormat } from './write-wav'
import { writeWav } from './write-wav'

/** A test signal, in words that make it again exactly. Levels in dBFS (AES17), frequencies in Hz. */
export type Signal =
  | { kind: 'sine'; frequency: number; level: number; seconds: number }
  | { kind: 'silence'; seconds: number }
  | { kind: 'white' | 'pink' | 'sweep' | 'pulses' | 'polarity'; level: number; seconds: number }
  | { kind: 'sequence'; level: number }
  | { kind: 'stairs'; frequency: number; levels: readonly number[]; stepSeconds: number }
export type SignalKind = Signal['kind']

export const signalNames: Record<SignalKind, string> = {
  sine: 'Sine',
  silence: 'Silence',
  white: 'White noise',
  pink: 'Pink noise',
  sweep: 'Logarithmic sweep',
  sequence: 'Maximum-length sequence',
  pulses: 'Latency pulses',
  stairs: 'Level staircase',
  polarity: 'Polarity pulses',
}

/** Edges of a signal that would click, s. */
const FADE = 0.02
const SWEEP = { from: 20, to: 20_000 }
const PULSES_EVERY = 1
const POLARITY_EVERY = 0.5
const SEQUENCE = { order: 15, times: 5 }
/** Any number will do; the same one gives the same noise. */
const SEED = 1

/** Samples of a signal that are made at most, of one channel: 23 minutes at 48 kHz, nearly 6 at 192 kHz. */
const MOST_SAMPLES = 2 ** 26

/** The longest that a signal may be at a sample rate, s. */
export const longestSignal = (sampleRate: number): number => MOST_SAMPLES / sampleRate

/** The samples of a signal. It is the same every time. */
export function makeSignal(signal: Signal, sampleRate: number): Float64Array {
  switch (signal.kind) {
    case 'sine':
      return faded(sine(sampleRate, signal.seconds, signal.frequency, signal.level), sampleRate, FADE)
    case 'silence':
      return new Float64Array(Math.round(sampleRate * signal.seconds))
    case 'white':
      return faded(whiteNoise(sampleRate, signal.seconds, signal.level, SEED), sampleRate, FADE)
    case 'pink':
      return faded(pinkNoise(sampleRate, signal.seconds, signal.level, SEED), sampleRate, FADE)
    case 'sweep':
      return faded(
        logSweep(sampleRate, signal.seconds, SWEEP.from, Math.min(SWEEP.to, 0.45 * sampleRate), signal.level),
        sampleRate,
        FADE,
      )
    case 'sequence':
      return sequenceRepeated(sampleRate, SEQUENCE.order, SEQUENCE.times, signal.level)
    case 'pulses':
      return pulseTrain(sampleRate, signal.seconds, PULSES_EVERY, signal.level)
    case 'polarity':
      return polarityPulses(sampleRate, signal.seconds, POLARITY_EVERY, signal.level)
    case 'stairs':
      return staircase(sampleRate, signal.stepSeconds, signal.frequency, signal.levels)
  }
}

/** On which channels of a file a signal stands. */
export const layouts = { mono: 'mono', both: 'both of two', left: 'left of two', right: 'right of two' } as const
export type Layout = keyof typeof layouts

/** A signal as the bytes of a WAV file. Silence is exact: dither would be a signal of its own. */
export function signalFile(
  signal: Signal,
  sampleRate: number,
  format: SampleFormat,
  layout: Layout,
): Uint8Array<ArrayBuffer> {
  const samples = makeSignal(signal, sampleRate)
  const none = layout === 'left' || layout === 'right' ? new Float64Array(samples.length) : samples
  const channels = { mono: [samples], both: [samples, samples], left: [samples, none], right: [none, samples] }[layout]
  return writeWav(channels, sampleRate, format, { dither: signal.kind !== 'silence' })
}
