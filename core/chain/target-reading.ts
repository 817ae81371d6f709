import type { TargetReading, TargetWindow } from '../session'
import type { Level } from '../units'
import type { Point } from './cascade'

/** What a target looks at, at a point. */
export const readingOf = (point: Point, reads: TargetReading): Level =>
  ({ 'average': point.average, 'peak': point.peak, 'surge-peak': point.surgePeak })[reads]

/** How far a reading is from what the target aims at, dB; positive is too loud. */
export const aimError = (point: Point, target: TargetWindow): number => readingOf(point, target.reads) - target.aim

/** Readings that far outside a window still count as on its edge: below any meter's resolution. */
const ON_THE_EDGE = 0.005

/** How far a reading lies outside the window, dB; positive above, negative below, 0 inside. */
export function windowError(point: Point, target: TargetWindow): number {
  const reading = readingOf(point, target.reads)
  if (reading > target.high + ON_THE_EDGE) return reading - target.high
  if (reading < target.low - ON_THE_EDGE) return reading - target.low
  return 0
}
