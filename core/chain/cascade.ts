import { power } from '../numeric/power'
import type { Db, Level } from '../units'
import { db, difference, raise } from '../units'
import type { Curve } from '../gear/processor/curve'
import { addNoise, clip, enter, lower, noiseLevel, raiseAll } from './signal'
import type { Clipped, Signal } from './signal'
import type { NoiseName, Pickup, Programme, SignalUnit, TwoPort } from '../gear/two-port'

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
  /** The earlier stage whose clipping this point carries, and its strip; no later stage can fix it. */
  carriesClipping: Clipped | null
}

/** One noise as it arrives at the end of the strip. */
export interface Contribution {
  /** Where it arises: on a bus, mostly in a strip that feeds it. */
  strip: string
  stage: string
  name: NoiseName
  level: Level
  /** Part of the noise power there, 0…1; all shares add to 1. */
  share: number
}

/** A programme as it enters a strip, and its point. `device`: whose its noise is, a room’s that of the microphone. */
export function enterStrip(
  programme: Programme,
  strip: string,
  device = programme.origin ?? programme.stage,
): { signal: Signal; point: Point } {
  const signal = enter(programme, strip, device)
  const point = pointAt(programme.stage, programme.unit, signal, programme.ceiling, null, null)
  // Air does not clip: what overloads on it is the capsule, which is the next two-port's input.
  if (programme.unit !== 'dBSPL') clip(signal, programme.ceiling, programme.stage)
  return { signal, point }
}

/**
 * Carries the signal through a two-port, clips it where it has to, and tells what stands at its output.
 *
 * A stage that is overdriven passes on its ceiling instead of the peak, marked: turning down behind it makes the
 * distortion quieter, not smaller. Noises are unrelated and add in power; each is counted once, where it arises.
 */
export function applyTwoPort(
  signal: Signal,
  { stage, unit, gain, pickup, curve, inputCeiling, outputCeiling, noise }: TwoPort,
  device = stage,
): Point {
  if (pickup) applyPickup(signal, pickup)
  const overInput = inputCeiling === null ? null : difference(inputCeiling, signal.peak)
  const surgeOverInput = inputCeiling === null ? null : difference(inputCeiling, signal.surgePeak)
  const reduction = curve ? applyCurve(signal, curve) : null
  raiseAll(signal, gain)
  signal.unit = unit
  addNoise(signal, stage, device, noise)
  const throughInput = inputCeiling === null ? null : raise(bent(inputCeiling, curve), gain)
  const point = curve
    ? pointBehindCurve(stage, unit, signal, outputCeiling, reduction, overInput, surgeOverInput)
    : pointAt(stage, unit, signal, lower(throughInput, outputCeiling), null, null)
  clip(signal, lower(throughInput, outputCeiling), stage, point.clipped)
  return point
}

/** A directional microphone takes less of what is off its axis, and less of the room. */
function applyPickup(signal: Signal, { programme, room }: Pickup) {
  signal.average = raise(signal.average, programme)
  signal.peak = raise(signal.peak, programme)
  signal.surgePeak = raise(signal.surgePeak, programme)
  signal.bound = raise(signal.bound, programme)
  signal.shift += room
}

const bent = (level: Level, curve: Curve | undefined): Level => (curve ? (curve.level(level) as Level) : level)

/** A static curve acts on every level by itself; on the noise at the level that the noise has alone, as in a pause. */
function applyCurve(signal: Signal, curve: Curve): Reduction {
  const floor = noiseLevel(signal)
  const lift = floor === null ? 0 : curve.level(floor) - floor
  signal.shift += lift
  // A small signal meets no threshold: feedback begins with one.
  signal.openGain += curve.fixed
  const off = (level: Level) => db(level + curve.fixed - curve.level(level))
  const reduction = { average: off(signal.average), peak: off(signal.peak), surge: off(signal.surgePeak) }
  signal.average = bent(signal.average, curve)
  signal.peak = bent(signal.peak, curve)
  signal.surgePeak = bent(signal.surgePeak, curve)
  signal.bound = bent(signal.bound, curve)
  return reduction
}

function pointAt(
  stage: string,
  unit: SignalUnit,
  signal: Signal,
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
    carriesClipping: signal.clipped,
  }
}

function pointBehindCurve(
  stage: string,
  unit: SignalUnit,
  signal: Signal,
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

/** Every noise at the end of a walk, the loudest first. */
export function contributions(signal: Signal): Contribution[] {
  const total = noiseLevel(signal) ?? 0
  return signal.noise
    .map(({ strip, stage, name, below }) => {
      const level = (below + signal.shift) as Level
      return { strip, stage, name, level, share: power(level - total) }
    })
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
