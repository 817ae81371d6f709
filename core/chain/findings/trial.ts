import type { Change, Strip } from '../../session'
import { applyChanges } from '../../session'
import type { Point } from '../cascade'
import { arrivingAt, walkStrip } from '../graph'
import type { ResolvedStage } from '../resolve'
import { gearById, resolveStrip } from '../resolve'
import { aimError, readingPlace } from '../target-window'
import type { StripView } from './view'

interface Tried {
  stages: ResolvedStage[]
  points: Point[]
  /** How far the reading is from what the target aims at, dB; `null` where nothing is read. */
  error: number | null
}

/** The strip's levels as they would be after some changes. */
export function tried(view: StripView, changes: readonly Change[]): Tried | null {
  const session = applyChanges(view.session, changes)
  const strip = session.strips.find((each) => each.id === view.strip.id) as Strip
  const gear = gearById(session)
  const stages = resolveStrip(strip, gear)
  const { points } = walkStrip(strip, stages, session, arrivingAt(session, strip, gear))
  const place = readingPlace(stages, view.target)
  const point = place && points[place.index]
  return { stages, points, error: point ? aimError(point, place, view.target) : null }
}
