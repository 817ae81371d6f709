import type { Change } from '../edits'
import type { Strip } from '../model'
import { applyChanges } from '../edits'
import { isBus } from '../model'
import type { Point } from '../chain/cascade'
import { arrivingAt, cascadeStrip } from '../chain/graph'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'
import { aimError, readingPlace } from '../chain/target-window'
import type { StripView } from './view'

interface Tried {
  stages: readonly ResolvedStage[]
  points: Point[]
  /** How far the statistic is from what the target aims at, dB; `null` where nothing is read. */
  error: number | null
}

/** The strip's levels as they would be after some changes. */
export function tried(view: StripView, changes: readonly Change[]): Tried | null {
  const session = applyChanges(view.session, changes)
  const strip = session.strips.find((each) => each.id === view.strip.id) as Strip
  const stages = stagesOf(session, strip)
  const { points } = cascadeStrip(strip, stages, session, arrivingAt(session, strip))
  const place = readingPlace(stages, view.target)
  const point = place && points[place.index]
  return { stages, points, error: point ? aimError(point, place, view.target) : null }
}

/** Furthest that is looked, and how closely, dB. */
const FURTHEST = 60
const CLOSELY = 0.1

/**
 * The least that has to be taken off before a stage for its levels to be as wanted, solved through whatever curves come behind it,
 * and rounded up to a tenth. @returns `null` where no amount does it
 */
export function leastLess(view: StripView, at: number, wanted: (points: readonly Point[]) => boolean): number | null {
  const { session, strip, stages } = view
  const arriving = isBus(strip) ? arrivingAt(session, strip) : []
  const holds = (tenths: number) =>
    wanted(cascadeStrip(strip, stages, session, arriving, { at, by: tenths * CLOSELY }).points)
  return leastStep(FURTHEST / CLOSELY, holds, CLOSELY)
}

/** The least of so many equal steps from which on something holds, times their size; `null` where it never does. */
export function leastStep(last: number, holds: (step: number) => boolean, size: number): number | null {
  if (!holds(last)) return null
  let [low, high] = [-1, last]
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (holds(middle)) high = middle
    else low = middle
  }
  return high * size
}
