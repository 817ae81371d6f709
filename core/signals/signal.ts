import { faded, logSweep, pinkNoise, polarityPulses, pulseTrain, sequenceRepeated, sine, staircase, whiteNoise } from './generate'

/** A test signal, in words that make it again exactly. Levels in dBFS (AES17), frequencies in Hz. */
export type Signal =
  | { kind: 'sine', frequency: number, level: number, seconds: number }
  | { kind: 'silence', seconds: number }
  | { kind: 'white' | 'pink' | 'sweep' | 'pulses' | 'polarity', level: number, seconds: number }
  | { kind: 'sequence', level: number }
  | { kind: 'stairs', frequency: number, levels: readonly number[], stepSeconds: number }
export type SignalKind = Signal['kind']

export const signalNames: Record<SignalKind, string> = {
  sine: 'Sine', silence: 'Silence', white: 'White noise', pink: 'Pink noise', sweep: 'Logarithmic sweep', sequence: 'Maximum-length sequence', pulses: 'Latency pulses', stairs: 'Level staircase', polarity: 'Polarity pulses',
}

/** Edges of a signal that would click, s. */
const FADE = 0.02
const SWEEP = { from: 20, to: 20_000 }
const PULSES_EVERY = 1
const POLARITY_EVERY = 0.5
const SEQUENCE = { order: 15, times: 5 }
/** Any number will do; the same one gives the same noise. */
const SEED = 1

export function makeSignal(signal: Signal, sampleRate: number): Float64Array {
  switch (signal.kind) {
    case 'sine': return faded(sine(sampleRate, signal.seconds, signal.frequency, signal.level), sampleRate, FADE)
    case 'silence': return new Float64Array(Math.round(sampleRate * signal.seconds))
    case 'white': return faded(whiteNoise(sampleRate, signal.seconds, signal.level, SEED), sampleRate, FADE)
    case 'pink': return faded(pinkNoise(sampleRate, signal.seconds, signal.level, SEED), sampleRate, FADE)
    case 'sweep': return faded(logSweep(sampleRate, signal.seconds, SWEEP.from, Math.min(SWEEP.to, 0.45 * sampleRate), signal.level), sampleRate, FADE)
    case 'sequence': return sequenceRepeated(sampleRate, SEQUENCE.order, SEQUENCE.times, signal.level)
    case 'pulses': return pulseTrain(sampleRate, signal.seconds, PULSES_EVERY, signal.level)
    case 'polarity': return polarityPulses(sampleRate, signal.seconds, POLARITY_EVERY, signal.level)
    case 'stairs': return staircase(sampleRate, signal.stepSeconds, signal.frequency, signal.levels)
  }
}
