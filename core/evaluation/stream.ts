import { isProcessor } from '../gear'
import type { Point, Reduction } from '../chain/cascade'
import type { GainControl } from '../chain/gain-control'
import { stripControls } from '../chain/gain-control'
import type { StripCascade } from '../chain/graph'
import { cascadeStrip } from '../chain/graph'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import type { Signal } from '../chain/signal'
import { copied } from '../chain/signal'
import type { Session } from '../session'
import type { Strip } from '../model'

/** What a stream comes to, estimated before the take. */
export interface Stream {
  /** LUFS. */
  loudness: number
  /** How far off the estimate may be either way, for its programme alone, LU. */
  give: number
  wanted: number
  /** What its limiters, compressors and expanders take off at its end together, dB. */
  reduction: Reduction
  /** What is to be added before its curves to reach the loudness, dB; `null` where no gain does. */
  gain: number | null
}

/** K-weighting of a programme against its RMS: 0 to +1.5 dB for speech, 0.69 at 997 Hz (ITU-R BS.1770). */
const K = 0.69
const K_GIVE = 0.75
/** AES17 RMS of a sine is 3.01 dB over its mean square; BS.1770 takes 0.691 off. */
const FROM_RMS = -3.7
/** A stream has two channels, and one sum plays in both. */
const TWO_CHANNELS = 10 * Math.log10(2)

/**
 * Loudness from an AES17 RMS level: L − 3.70 + K + 10 lg(channels with the same signal).
 * Example: 997 Hz at −23 dBFS in two channels: −23.0 LUFS.
 */
export const estimatedLoudness = (average: number, k = K, channels = TWO_CHANNELS): number =>
  average + FROM_RMS + k + channels

/** The gain is looked for this far each way, dB. */
const WIDEST = 60

/** A bus with a loudness to reach, as far as its end is in numbers. */
export function streamOf(
  session: Session,
  strip: Strip,
  stages: readonly ResolvedStage[],
  { points }: StripCascade,
  arriving: readonly Signal[],
): Stream | null {
  const end = points.at(-1)
  if (strip.loudness === undefined || end?.unit !== 'dBFS') return null
  const wanted = strip.loudness
  const average = (gain: number) =>
    cascadeStrip(
      strip,
      stages,
      session,
      arriving.map((each) => copied(each, gain)),
    ).points.at(-1)?.average ?? end.average
  let found: { gain: number | null } | undefined
  return {
    loudness: estimatedLoudness(end.average),
    give: K_GIVE,
    wanted,
    reduction: reductionOf(points),
    // Looked for when it is first asked: while a gain is dragged nobody does.
    get gain() {
      return (found ??= { gain: gainFor(wanted, (gain) => estimatedLoudness(average(gain))) }).gain
    },
  }
}

const reductionOf = (points: readonly Point[]): Reduction =>
  points.reduce(
    (sum, { reduction }) =>
      reduction
        ? ({
            average: sum.average + reduction.average,
            peak: sum.peak + reduction.peak,
            surge: sum.surge + reduction.surge,
          } as Reduction)
        : sum,
    { average: 0, peak: 0, surge: 0 } as Reduction,
  )

/** By halving: more gain is never quieter. */
function gainFor(wanted: number, loudness: (gain: number) => number): number | null {
  const straight = wanted - loudness(0)
  if (Math.abs(loudness(straight) - wanted) < 0.005) return straight
  let [low, high] = [-WIDEST, WIDEST]
  if (loudness(high) < wanted - 0.05) return null
  while (high - low > 0.01) {
    const middle = (low + high) / 2
    if (loudness(middle) < wanted) low = middle
    else high = middle
  }
  return high
}

/** The last gain of a stream before its first curve, where one sets its loudness. */
export function streamControl(session: Session, strip: Strip): GainControl | null {
  const stages = stagesOf(session, strip)
  const curve = stages.findIndex(
    (stage) =>
      isProcessor(stage) && stage.gear.blocks.some(({ on, type }) => on && type !== 'gain' && type !== 'equaliser'),
  )
  const before = stripControls(curve < 0 ? stages : stages.slice(0, curve))
  return before.findLast((each) => !each.locked) ?? null
}
