import { powerSum, shares } from '../numeric/power'
import type { Db, Level } from '../units'
import { SINE_CREST, db, difference, raise } from '../units'
import type { NoiseName, NoiseSource, Programme, SignalUnit, TwoPort } from './two-port'

/** The signal at the output of a stage. */
export interface Point {
  stage: string
  unit: SignalUnit
  average: Level
  /** What the stage would put out had it no ceiling: above the ceiling it says how far the stage is overdriven. */
  peak: Level
  surgePeak: Level
  ceiling: Level | null
  /** ceiling − peak */
  headroom: Db | null
  /** dB(A); `null` where nothing is known to make noise. */
  noise: Level | null
  /** average − noise */
  snr: Db | null
  /** The rehearsed peak passes this stage's ceiling. */
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

interface Carried {
  average: Level
  peak: Level
  surgePeak: Level
  noise: { stage: string, name: NoiseName, level: Level }[]
  clippedAt: string | null
}

/**
 * Walks the two-ports and yields level, headroom and noise at every one, and every noise's share at the last.
 *
 * A stage that is overdriven passes on its ceiling instead of the peak, marked: turning down behind it makes the
 * distortion quieter, not smaller. Noises are unrelated and add in power; each is counted once, where it arises.
 */
export function cascade(programme: Programme, twoPorts: readonly TwoPort[]): Cascade {
  let carried = enter(programme)
  const points = [pointAt(programme.stage, programme.unit, carried, programme.ceiling)]
  // Air does not clip: what overloads on it is the capsule, which is the next two-port's input.
  for (const twoPort of twoPorts) {
    carried = pass(carried, twoPort)
    const ceiling = ceilingOf(twoPort)
    const point = pointAt(twoPort.stage, twoPort.unit, carried, ceiling)
    points.push(point)
    carried = clip(carried, ceiling, twoPort.stage)
  }
  return { points, noise: contributions(carried) }
}

function enter(programme: Programme): Carried {
  return {
    average: programme.average,
    peak: programme.peak,
    surgePeak: programme.surgePeak,
    noise: arising(programme.stage, programme.noise),
    clippedAt: null,
  }
}

const arising = (stage: string, noise: readonly NoiseSource[]) => noise.map(({ name, level }) => ({ stage, name, level }))

function pass(signal: Carried, { stage, gain, noise }: TwoPort): Carried {
  return {
    average: raise(signal.average, gain),
    peak: raise(signal.peak, gain),
    surgePeak: raise(signal.surgePeak, gain),
    noise: [...signal.noise.map((each) => ({ ...each, level: raise(each.level, gain) })), ...arising(stage, noise)],
    clippedAt: signal.clippedAt,
  }
}

/** The lower of the output's ceiling and the input's, seen at the output. */
function ceilingOf({ gain, inputCeiling, outputCeiling }: TwoPort): Level | null {
  const throughInput = inputCeiling === null ? null : raise(inputCeiling, gain)
  if (throughInput === null) return outputCeiling
  if (outputCeiling === null) return throughInput
  return throughInput < outputCeiling ? throughInput : outputCeiling
}

function clip(signal: Carried, ceiling: Level | null, stage: string): Carried {
  if (ceiling === null || signal.surgePeak <= ceiling) return signal
  return {
    ...signal,
    peak: lower(signal.peak, ceiling),
    surgePeak: ceiling,
    // A square wave, the hardest clipping there is, has its average 3.01 dB above the sine of the same peak.
    average: lower(signal.average, raise(ceiling, SINE_CREST)),
    clippedAt: signal.clippedAt ?? (signal.peak > ceiling ? stage : null),
  }
}

const lower = (a: Level, b: Level): Level => (a < b ? a : b)

function pointAt(stage: string, unit: SignalUnit, signal: Carried, ceiling: Level | null): Point {
  const noise = powerSum(signal.noise.map((each) => each.level)) as Level | null
  return {
    stage,
    unit,
    average: signal.average,
    peak: signal.peak,
    surgePeak: signal.surgePeak,
    ceiling,
    headroom: ceiling === null ? null : difference(ceiling, signal.peak),
    noise,
    snr: noise === null ? null : db(signal.average - noise),
    clipped: ceiling !== null && signal.peak > ceiling,
    carriesClipping: signal.clippedAt,
  }
}

function contributions(signal: Carried): Contribution[] {
  const parts = shares(signal.noise.map((each) => each.level))
  return signal.noise
    .map((each, i) => ({ ...each, share: parts[i] ?? 0 }))
    .sort((a, b) => b.level - a.level)
}

/** The point with the least headroom; `null` where no stage has a known ceiling. */
export function tightest(points: readonly Point[]): { stage: string, headroom: Db } | null {
  let least: { stage: string, headroom: Db } | null = null
  for (const { stage, headroom } of points) {
    if (headroom !== null && (least === null || headroom < least.headroom)) least = { stage, headroom }
  }
  return least
}
