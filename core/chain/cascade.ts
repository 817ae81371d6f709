import { power, powerSum } from '../numeric/power'
import type { Db, Level } from '../units'
import { SINE_CREST, db, difference, raise } from '../units'
import type { Curve } from './curve'
import type { NoiseName, NoiseSource, Pickup, Programme, SignalUnit, TwoPort } from './two-port'

/** What a curve takes off, dB. */
export interface Reduction {
  average: Db
  peak: Db
  surge: Db
}

/** The signal at the output of a stage. */
export interface Point {
  stage: string
  unit: SignalUnit
  average: Level
  /** What the stage would put out had it no ceiling: above the ceiling it says how far the stage is overdriven. */
  peak: Level
  surgePeak: Level
  /** peak + headroom */
  ceiling: Level | null
  /**
   * The least over the stage's terminals, each ceiling against the level at its own place: the input's before a curve,
   * the output's behind it. A limiter at work is no ceiling.
   */
  headroom: Db | null
  /** The same for the peak with the surge. */
  surgeHeadroom: Db | null
  /** dB(A); `null` where nothing is known to make noise. */
  noise: Level | null
  /** average − noise */
  snr: Db | null
  /** What the stage's compressors, expanders and limiters take off; `null` for a stage without any. */
  reduction: Reduction | null
  /** The rehearsed peak passes one of this stage's ceilings. */
  clipped: boolean
  /** The earlier stage whose clipping this point carries; no later stage can mend it. */
  carriesClipping: string | null
}

/** One noise as it arrives at the end of the strip. */
export interface Contribution {
  stage: string
  name: NoiseName
  level: Level
  /** Part of the noise power there, 0…1; all shares add to 1. */
  share: number
}

export interface Cascade {
  points: Point[]
  noise: Contribution[]
}

/** The signal on its way. Local to one walk, so it is changed in place: a walk of many stages makes few objects. */
interface Carried {
  average: Level
  peak: Level
  surgePeak: Level
  readonly noise: { readonly stage: string; readonly name: NoiseName; level: Level }[]
  clippedAt: string | null
}

/**
 * Walks the two-ports and yields level, headroom and noise at every one, and every noise's share at the last.
 *
 * A stage that is overdriven passes on its ceiling instead of the peak, marked: turning down behind it makes the
 * distortion quieter, not smaller. Noises are unrelated and add in power; each is counted once, where it arises.
 */
export function cascade(programme: Programme, twoPorts: readonly TwoPort[]): Cascade {
  const { average, peak, surgePeak, ceiling } = programme
  const signal: Carried = { average, peak, surgePeak, noise: [], clippedAt: null }
  arise(signal, programme.stage, programme.noise)
  const points = [pointAt(programme.stage, programme.unit, signal, ceiling, null, null)]
  // Air does not clip: what overloads on it is the capsule, which is the next two-port's input.
  if (programme.unit !== 'dBSPL') clip(signal, ceiling, programme.stage)
  for (const twoPort of twoPorts) points.push(pass(signal, twoPort))
  return { points, noise: contributions(signal) }
}

function arise(signal: Carried, stage: string, noise: readonly NoiseSource[]) {
  for (const { name, level } of noise) signal.noise.push({ stage, name, level })
}

/** Carries the signal through a two-port, clips it where it has to, and tells what stands at its output. */
function pass(
  signal: Carried,
  { stage, unit, gain, pickup, curve, inputCeiling, outputCeiling, noise }: TwoPort,
): Point {
  if (pickup) take(signal, pickup)
  const overInput = inputCeiling === null ? null : difference(inputCeiling, signal.peak)
  const surgeOverInput = inputCeiling === null ? null : difference(inputCeiling, signal.surgePeak)
  const reduction = curve ? bend(signal, curve) : null
  signal.average = raise(signal.average, gain)
  signal.peak = raise(signal.peak, gain)
  signal.surgePeak = raise(signal.surgePeak, gain)
  for (const each of signal.noise) each.level = raise(each.level, gain)
  arise(signal, stage, noise)
  const throughInput = inputCeiling === null ? null : raise(bent(inputCeiling, curve), gain)
  const point = curve
    ? pointBehindCurve(stage, unit, signal, outputCeiling, reduction, overInput, surgeOverInput)
    : pointAt(stage, unit, signal, lower(throughInput, outputCeiling), null, null)
  clip(signal, lower(throughInput, outputCeiling), stage, point.clipped)
  return point
}

/** A directional microphone takes less of what is off its axis, and less of the room. */
function take(signal: Carried, { programme, room }: Pickup) {
  signal.average = raise(signal.average, programme)
  signal.peak = raise(signal.peak, programme)
  signal.surgePeak = raise(signal.surgePeak, programme)
  for (const each of signal.noise) each.level = raise(each.level, room)
}

const bent = (level: Level, curve: Curve | undefined): Level => (curve ? (curve.level(level) as Level) : level)

/** A static curve acts on every level by itself; on the noise at the level that the noise has alone, as in a pause. */
function bend(signal: Carried, curve: Curve): Reduction {
  const floor = noiseLevel(signal)
  const lift = floor === null ? 0 : curve.level(floor) - floor
  for (const each of signal.noise) each.level = raise(each.level, db(lift))
  const off = (level: Level) => db(level + curve.fixed - curve.level(level))
  const reduction = { average: off(signal.average), peak: off(signal.peak), surge: off(signal.surgePeak) }
  signal.average = bent(signal.average, curve)
  signal.peak = bent(signal.peak, curve)
  signal.surgePeak = bent(signal.surgePeak, curve)
  return reduction
}

/** Holds the signal under a ceiling at the output; `already` where the peak is known to have passed one before a curve. */
function clip(signal: Carried, ceiling: Level | null, stage: string, already = false) {
  if (ceiling === null) return
  if (already || signal.peak > ceiling) signal.clippedAt ??= stage
  if (signal.surgePeak <= ceiling) return
  signal.peak = lower(signal.peak, ceiling)
  signal.surgePeak = ceiling
  // A square wave, the hardest clipping there is, has its average 3.01 dB above the sine of the same peak.
  signal.average = lower(signal.average, raise(ceiling, SINE_CREST))
}

function lower(a: Level, b: Level | null): Level
function lower(a: Level | null, b: Level | null): Level | null
function lower(a: Level | null, b: Level | null): Level | null {
  if (a === null) return b
  return b === null || a < b ? a : b
}

function pointAt(
  stage: string,
  unit: SignalUnit,
  signal: Carried,
  ceiling: Level | null,
  reduction: Reduction | null,
  known: { headroom: Db | null; surgeHeadroom: Db | null } | null,
): Point {
  const noise = noiseLevel(signal)
  const headroom = known ? known.headroom : ceiling === null ? null : difference(ceiling, signal.peak)
  const surgeHeadroom = known ? known.surgeHeadroom : ceiling === null ? null : difference(ceiling, signal.surgePeak)
  return {
    stage,
    unit,
    average: signal.average,
    peak: signal.peak,
    surgePeak: signal.surgePeak,
    ceiling,
    headroom,
    surgeHeadroom,
    noise,
    snr: noise === null ? null : db(signal.average - noise),
    reduction,
    clipped: headroom !== null && headroom < 0,
    carriesClipping: signal.clippedAt,
  }
}

function pointBehindCurve(
  stage: string,
  unit: SignalUnit,
  signal: Carried,
  outputCeiling: Level | null,
  reduction: Reduction | null,
  overInput: Db | null,
  surgeOverInput: Db | null,
): Point {
  const least = (input: Db | null, level: Level) => {
    const output = outputCeiling === null ? null : difference(outputCeiling, level)
    return input === null ? output : output === null || input < output ? input : output
  }
  const headroom = least(overInput, signal.peak)
  const surgeHeadroom = least(surgeOverInput, signal.surgePeak)
  const ceiling = headroom === null ? null : raise(signal.peak, headroom)
  return pointAt(stage, unit, signal, ceiling, reduction, { headroom, surgeHeadroom })
}

const noiseLevel = ({ noise }: Carried) => powerSum(noise) as Level | null

function contributions(signal: Carried): Contribution[] {
  const total = noiseLevel(signal) ?? 0
  return signal.noise
    .map(({ stage, name, level }) => ({ stage, name, level, share: power(level - total) }))
    .sort((a, b) => b.level - a.level)
}

/** The point with the least headroom; `null` where no stage has a known ceiling. */
export function tightest(points: readonly Point[]): { stage: string; headroom: Db } | null {
  let least: { stage: string; headroom: Db } | null = null
  for (const { stage, headroom } of points) {
    if (headroom !== null && (least === null || headroom < least.headroom)) least = { stage, headroom }
  }
  return least
}
