import { power } from '../numeric/power'
import type { Level } from '../units'
import { SINE_CREST, raise } from '../units'
import type { NoiseName, NoiseSource, Programme, SignalUnit } from './two-port'

/** A stage whose ceiling was passed. */
export interface Clipped {
  strip: string
  stage: string
}

/** One noise on its way, with the place where it arises. Its level is that of the signal’s `shift` on top of `below`. */
export interface CarriedNoise {
  readonly strip: string
  readonly stage: string
  readonly name: NoiseName
  readonly below: number
}

/** A sound that is part of a signal: how far its average lies under that of the whole, dB. No stage tells them apart, so that it stays. */
export interface Origin {
  readonly source: string
  readonly below: number
}

/**
 * The signal on its way. Local to one walk, so it is changed in place: a walk of many stages makes few objects. A stage raises
 * all noises alike, so that only what they have in common, `shift`, is changed, and their power is added up once.
 */
export interface Signal {
  readonly strip: string
  unit: SignalUnit
  average: Level
  peak: Level
  surgePeak: Level
  shift: number
  noisePower: number
  readonly noise: CarriedNoise[]
  readonly origins: readonly Origin[]
  clipped: Clipped | null
}

/** A programme as it enters a strip. */
export function enter({ stage, unit, average, peak, surgePeak, noise, origin }: Programme, strip: string): Signal {
  const origins = [{ source: origin ?? stage, below: 0 }]
  const signal = { strip, unit, average, peak, surgePeak, shift: 0, noisePower: 0, noise: [], origins, clipped: null }
  arise(signal, stage, noise)
  return signal
}

/** The same signal by itself, raised by a send. */
export const copied = (signal: Signal, gain: number): Signal => ({
  ...signal,
  average: (signal.average + gain) as Level,
  peak: (signal.peak + gain) as Level,
  surgePeak: (signal.surgePeak + gain) as Level,
  shift: signal.shift + gain,
  noise: [...signal.noise],
})

export function arise(signal: Signal, stage: string, noise: readonly NoiseSource[]) {
  for (const { name, level } of noise) add(signal, signal.strip, stage, name, level)
}

export function add(signal: Signal, strip: string, stage: string, name: NoiseName, level: number) {
  const below = level - signal.shift
  signal.noise.push({ strip, stage, name, below })
  signal.noisePower += power(below)
}

/** Everything raised alike. */
export function raiseAll(signal: Signal, gain: number) {
  signal.average = (signal.average + gain) as Level
  signal.peak = (signal.peak + gain) as Level
  signal.surgePeak = (signal.surgePeak + gain) as Level
  signal.shift += gain
}

/** Holds the signal under a ceiling at the output; `already` where the peak is known to have passed one before a curve. */
export function clip(signal: Signal, ceiling: Level | null, stage: string, already = false) {
  if (ceiling === null) return
  if (already || signal.peak > ceiling) signal.clipped ??= { strip: signal.strip, stage }
  if (signal.surgePeak <= ceiling) return
  signal.peak = lower(signal.peak, ceiling)
  signal.surgePeak = ceiling
  // A square wave, the hardest clipping there is, has its average 3.01 dB above the sine of the same peak.
  signal.average = lower(signal.average, raise(ceiling, SINE_CREST))
}

export function lower(a: Level, b: Level | null): Level
export function lower(a: Level | null, b: Level | null): Level | null
export function lower(a: Level | null, b: Level | null): Level | null {
  if (a === null) return b
  return b === null || a < b ? a : b
}

/** All noises together; `null` where nothing makes any. */
export const noiseLevel = ({ noise, noisePower, shift }: Signal): Level | null =>
  noise.length === 0 ? null : ((10 * Math.log10(noisePower) + shift) as Level)
