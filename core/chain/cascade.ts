import { power, powerSum } from '../numeric/power'
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
  const { average, peak, surgePeak } = programme
  const signal: Carried = { average, peak, surgePeak, noise: [], clippedAt: null }
  arise(signal, programme.stage, programme.noise)
  const points = [pointAt(programme.stage, programme.unit, signal, programme.ceiling)]
  // Air does not clip: what overloads on it is the capsule, which is the next two-port's input.
  if (programme.unit !== 'dBSPL') clip(signal, programme.ceiling, programme.stage)
  for (const twoPort of twoPorts) {
    pass(signal, twoPort)
    const ceiling = ceilingOf(twoPort)
    points.push(pointAt(twoPort.stage, twoPort.unit, signal, ceiling))
    clip(signal, ceiling, twoPort.stage)
  }
  return { points, noise: contributions(signal) }
}

function arise(signal: Carried, stage: string, noise: readonly NoiseSource[]) {
  for (const { name, level } of noise) signal.noise.push({ stage, name, level })
}

function pass(signal: Carried, { stage, gain, curve, noise }: TwoPort) {
  if (curve) bend(signal, curve)
  signal.average = raise(signal.average, gain)
  signal.peak = raise(signal.peak, gain)
  signal.surgePeak = raise(signal.surgePeak, gain)
  for (const each of signal.noise) each.level = raise(each.level, gain)
  arise(signal, stage, noise)
}

/** A static curve acts on every level by itself; on the noise at the level that the noise has alone, as in a pause. */
function bend(signal: Carried, curve: (level: number) => number) {
  const floor = noiseLevel(signal)
  const lift = floor === null ? 0 : curve(floor) - floor
  for (const each of signal.noise) each.level = raise(each.level, lift as Db)
  signal.average = curve(signal.average) as Level
  signal.peak = curve(signal.peak) as Level
  signal.surgePeak = curve(signal.surgePeak) as Level
}

/** The lower of the output's ceiling and the input's, seen at the output. */
function ceilingOf({ gain, curve, inputCeiling, outputCeiling }: TwoPort): Level | null {
  const throughInput = inputCeiling === null ? null : raise((curve ? curve(inputCeiling) : inputCeiling) as Level, gain)
  if (throughInput === null) return outputCeiling
  if (outputCeiling === null) return throughInput
  return lower(throughInput, outputCeiling)
}

function clip(signal: Carried, ceiling: Level | null, stage: string) {
  if (ceiling === null || signal.surgePeak <= ceiling) return
  if (signal.peak > ceiling) signal.clippedAt ??= stage
  signal.peak = lower(signal.peak, ceiling)
  signal.surgePeak = ceiling
  // A square wave, the hardest clipping there is, has its average 3.01 dB above the sine of the same peak.
  signal.average = lower(signal.average, raise(ceiling, SINE_CREST))
}

const lower = (a: Level, b: Level): Level => (a < b ? a : b)

function pointAt(stage: string, unit: SignalUnit, signal: Carried, ceiling: Level | null): Point {
  const noise = noiseLevel(signal)
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
