import { power } from '../numeric/power'
import type { Level } from '../units'
import { SINE_CREST, raise } from '../units'
import type { NoiseName, NoiseSource, Programme, SignalUnit } from '../gear/two-port'

/** A stage whose ceiling was passed. */
export interface Clipped {
  strip: string
  stage: string
}

/**
 * One noise on its way, with the place where it arises and the device that makes it: one device on two ways makes one noise. Its level
 * is that of the signal’s `shift` on top of `below`.
 */
export interface CarriedNoise {
  readonly strip: string
  readonly stage: string
  readonly device: string
  readonly name: NoiseName
  readonly below: number
}

/**
 * A sound that is part of a signal: how far its average, peak and peak with the surge lie under those of the whole, dB. A stage acts on
 * the whole and tells no sounds apart, so that they stay.
 */
export interface Origin {
  readonly source: string
  readonly average: number
  readonly peak: number
  readonly surge: number
}

/**
 * A microphone that is heard in a signal, and the greatest gain from the sound pressure at its capsule, on its axis, to here: that of a
 * small signal, which no compressor holds down. Its gain is `openGain` of the signal on top of `gain`, dB.
 */
export interface OpenMicrophone {
  readonly device: string
  readonly strips: readonly string[]
  readonly gain: number
}

/**
 * The signal on its way. Local to one evaluation, so it is changed in place: a strip of many stages makes few objects. A stage raises
 * all noises alike, so that only what they have in common, `shift`, is changed, and their power is added up once.
 */
export interface Signal {
  readonly strip: string
  unit: SignalUnit
  average: Level
  peak: Level
  surgePeak: Level
  /** The highest peak that can be: every sound at its peak in the same moment, on every way. */
  bound: Level
  shift: number
  noisePower: number
  readonly noise: CarriedNoise[]
  readonly origins: readonly Origin[]
  openGain: number
  microphones: readonly OpenMicrophone[]
  clipped: Clipped | null
}

/** A programme as it enters a strip. */
export function enter(
  { stage, unit, average, peak, surgePeak, noise, origin }: Programme,
  strip: string,
  device: string,
): Signal {
  const signal: Signal = {
    strip,
    unit,
    average,
    peak,
    surgePeak,
    bound: peak,
    shift: 0,
    noisePower: 0,
    noise: [],
    origins: [{ source: origin ?? stage, average: 0, peak: 0, surge: 0 }],
    openGain: 0,
    microphones: NONE,
    clipped: null,
  }
  addNoise(signal, stage, device, noise)
  return signal
}
const NONE: readonly OpenMicrophone[] = []

/** Takes note of the microphone that the signal comes to: gains count from its capsule. */
export function openMicrophone(signal: Signal, device: string) {
  signal.openGain = 0
  signal.microphones = [{ device, strips: [signal.strip], gain: 0 }]
}

/** The same signal by itself, raised by a send. */
export const copied = (signal: Signal, gain: number): Signal => ({
  ...signal,
  average: (signal.average + gain) as Level,
  peak: (signal.peak + gain) as Level,
  surgePeak: (signal.surgePeak + gain) as Level,
  bound: (signal.bound + gain) as Level,
  shift: signal.shift + gain,
  openGain: signal.openGain + gain,
  noise: [...signal.noise],
})

export function addNoise(signal: Signal, stage: string, device: string, noise: readonly NoiseSource[]) {
  for (const { name, level } of noise) add(signal, signal.strip, stage, device, name, level)
}

export function add(signal: Signal, strip: string, stage: string, device: string, name: NoiseName, level: number) {
  const below = level - signal.shift
  signal.noise.push({ strip, stage, device, name, below })
  signal.noisePower += power(below)
}

/** Everything raised alike. */
export function raiseAll(signal: Signal, gain: number) {
  signal.average = (signal.average + gain) as Level
  signal.peak = (signal.peak + gain) as Level
  signal.surgePeak = (signal.surgePeak + gain) as Level
  signal.bound = (signal.bound + gain) as Level
  signal.shift += gain
  signal.openGain += gain
}

/** Holds the signal under a ceiling at the output; `already` where the peak is known to have passed one before a curve. */
export function clip(signal: Signal, ceiling: Level | null, stage: string, already = false) {
  if (ceiling === null) return
  if (already || signal.peak > ceiling) signal.clipped ??= { strip: signal.strip, stage }
  signal.bound = lower(signal.bound, ceiling)
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
