import { isMicrophone, isSoundSource } from '../gear'
import type { Point } from '../chain/cascade'
import { RESERVE } from '../chain/reserve'
import type { ResolvedStage } from '../gear/stage'
import type { Session } from '../session'
import type { TargetWindow } from '../model'
import { SAME_DB } from '../units'

interface Left {
  peak: number
  surge: number
}

/** The headroom that is kept at analogue stages, and at those in numbers. */
export interface Reserve {
  readonly analogue: Left
  readonly digital: Left
}

/**
 * What is kept: in numbers nothing clips as rehearsed; where the target is a risk, the surge has the room that the risk asks for there
 * too, since a plug-in behind the converter spoils the take as well.
 */
export const reserveFor = ({ target }: Session, window: TargetWindow): Reserve => ({
  analogue: RESERVE,
  digital: { peak: 0, surge: typeof target === 'object' && 'risk' in target ? -window.aim : -Infinity },
})

/** Where a stage's headroom may not fall below; `null` where it is no concern of the planner's. */
export type Floors = readonly (Left | null)[]

const left = (point: Point | undefined): Left => ({
  peak: point?.headroom ?? Infinity,
  surge: point?.surgeHeadroom ?? Infinity,
})

/**
 * The floors of a strip. An analogue stage keeps the reserve, a digital one at least does not clip – unless it has less
 * already where nothing is turned up (`down`), or as it is set and is to be held (`held`): what is so anyway is no reason to
 * give up the rest. A stage that is driven on purpose has none, nor has the air.
 */
export function floorsOf(
  stages: readonly ResolvedStage[],
  down: readonly Point[],
  held: readonly Point[] | null,
  reserve: Reserve,
): Floors {
  return stages.map((stage, i) => {
    const point = down[i]
    if (!point || stage.driven || isSoundSource(stage) || isMicrophone(stage)) return null
    const wanted = point.unit !== 'dBFS' ? reserve.analogue : reserve.digital
    const lowest = left(point)
    const now = held ? left(held[i]) : { peak: Infinity, surge: Infinity }
    return {
      peak: Math.min(wanted.peak, lowest.peak, Math.max(0, now.peak)),
      surge: Math.min(wanted.surge, lowest.surge, Math.max(0, now.surge)),
    }
  })
}

/** The first stage from some place on that has fallen below its floor. */
export function tightStage(points: readonly Point[], floors: Floors, from: number): string | null {
  for (let i = Math.max(1, from); i < points.length; i++) {
    const floor = floors[i]
    const { peak, surge } = left(points[i])
    if (floor && (peak < floor.peak - SAME_DB || surge < floor.surge - SAME_DB)) return points[i]?.stage ?? null
  }
  return null
}
