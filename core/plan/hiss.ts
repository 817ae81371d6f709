import type { Allocation } from './allocate'
import { arrivingAt, cascadeStrip } from '../chain/graph'
import { stagesOf } from '../resolved/resolve-session'
import { meterReading } from '../chain/target-window'
import { powerSum } from '../numeric/power'
import type { Session } from '../session'

/** The electronics' noise against the level, for this plan and for the careless one with all gain at the last stage. */
export interface Hiss {
  planned: number
  naive: number
  /** naive − planned, dB: how much quieter the plan's hiss is; never negative. */
  lower: number
}

/** The electronics' noise where the strip ends, dB over what the target reads; the room is no hiss. */
export function hissOf(session: Session, { strip, points, place, window }: Allocation): number | null {
  const { noise } = cascadeStrip(strip, stagesOf(session, strip), session, arrivingAt(session, strip))
  const level = powerSum(noise.filter((each) => each.name !== 'room'))
  const point = place && points[place.index]
  const end = points.at(-1)
  if (level === null || !point || !end) return null
  // The noise is that of the strip's end: the level is carried there too.
  return level - (meterReading(point, place, window) + (end.average - point.average))
}
