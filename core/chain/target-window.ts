import { normalQuantile } from '../numeric/laws'
import type { Target, TargetReading, TargetWindow } from '../model'
import { targetOf } from '../model'
import type { Db, Level } from '../units'
import { db } from '../units'
import type { Point } from './cascade'
import { hasPieces, isDeskChannel, isInterface, isPlayback } from '../gear'
import { chainTraits } from '../gear/chains'
import type { ResolvedStage } from '../gear/stage'

/** What a target by risk leaves below its aim, dB: a step of any usual gain lands inside (common practice, no source). */
const RISK_WINDOW = 6

/**
 * The window that a target stands for on a strip. One by risk: the peak with the surge so far under full scale that the
 * take clips with the given chance at most, Φ(−z) with z = margin/u.
 * Example: u 3.79 dB, 1 %: 8.81 dB must be left.
 * @param uncertainty of the peak with the surge where it is read, dB; asked only for a target by risk
 */
export function windowFor(target: Target, stages: readonly ResolvedStage[], uncertainty: () => number): TargetWindow {
  if (isSetByPfl(stages)) return PFL_WINDOW
  const chosen = targetOf(target)
  if (!('risk' in chosen)) return chosen
  const aim = -normalQuantile(1 - chosen.risk / 100) * uncertainty()
  return { low: aim - RISK_WINDOW, high: aim, aim, reads: 'surge-peak' }
}

/**
 * A channel of a desk whose way to the recorder leads over a bus is set by PFL: the loudest passage’s peak at the desk’s zero
 * mark, before the fader. A little under it is no fault; over it the reserve of the sum is used up.
 */
const PFL_WINDOW: TargetWindow = { low: -6, high: 0, aim: 0, reads: 'peak' }

const isSetByPfl = (stages: readonly ResolvedStage[]): boolean =>
  stages.some((stage) => isDeskChannel(stage)) && !stages.some((stage) => isInterface(stage))

/** Where a target is read. */
export interface ReadingPlace {
  /** Of the stage at whose output it is read. */
  readonly index: number
  readonly meter: 'converter' | 'desk' | 'pfl' | 'file'
  /** What the meter's 0 stands at, in the unit of the point. */
  readonly zero: number
}

/** The desk meter's zero mark where a desk states none, dBu. */
export const USUAL_ZERO = 4

/**
 * Where a target is read on a strip: at the last analogue-to-digital converter; faders and plug-ins behind it are for the
 * mix. A live target is read on the desk's meter where there is a desk; a strip that begins in the host at its file.
 */
export function readingPlace(stages: readonly ResolvedStage[], window: TargetWindow): ReadingPlace | null {
  if (isSetByPfl(stages)) {
    const index = stages.findLastIndex((stage) => isDeskChannel(stage))
    return { index, meter: 'pfl', zero: zeroMark(stages) + behindPfl(stages[index] as ResolvedStage) }
  }
  if (window.at === 'desk') {
    const desk = stages.findLastIndex(isDesk)
    if (desk >= 0) return { index: desk, meter: 'desk', zero: zeroMark(stages) }
  }
  const converter = stages.findLastIndex(isConverter)
  if (converter >= 0) return { index: converter, meter: 'converter', zero: 0 }
  const first = stages[0]
  // Pieces have a mark of their own, by which they are trimmed.
  return isPlayback(first) && !hasPieces(first.gear) ? { index: stages.length - 1, meter: 'file', zero: 0 } : null
}

/** Where volts, or a sound, become numbers: an interface input, a microphone with a converter of its own. */
export const isConverter = (stage: ResolvedStage): boolean => chainTraits(stage).converts(stage)

/** What the channel’s own output has on top of what PFL shows: its fader, where it is taken behind it. */
export const behindPfl = ({ settings }: ResolvedStage): number => (settings.tap === 'pre' ? 0 : (settings.fader ?? 0))

export const isDesk = (stage: ResolvedStage) => chainTraits(stage).isOfDesk(stage)

/** What the zero mark of the desk in a strip stands at, dBu. */
export function zeroMark(stages: readonly ResolvedStage[]): number {
  return stages.findLast((stage) => isDeskChannel(stage))?.specs.zero ?? USUAL_ZERO
}

/** What a target looks at, at a point. */
export const readingOf = (point: Point, reads: TargetReading): Level =>
  ({ 'average': point.average, 'peak': point.peak, 'surge-peak': point.surgePeak })[reads]

/** What the meter at the place shows of it, dBFS or dB on the desk's meter. */
export const meterReading = (point: Point, place: ReadingPlace, window: TargetWindow): number =>
  readingOf(point, window.reads) - place.zero

/** How far a reading is from what the target aims at, dB; positive is too loud. */
export const aimError = (point: Point, place: ReadingPlace, window: TargetWindow): Db =>
  db(meterReading(point, place, window) - window.aim)

/** Readings that far outside a window still count as on its edge: below any meter's resolution. */
const ON_THE_EDGE = 0.005

/** How far a reading lies outside the window, dB; positive above, negative below, 0 inside. */
export function windowError(point: Point, place: ReadingPlace, window: TargetWindow): number {
  const reading = meterReading(point, place, window)
  if (reading > window.high + ON_THE_EDGE) return reading - window.high
  if (reading < window.low - ON_THE_EDGE) return reading - window.low
  return 0
}
