import type { Point } from './cascade'

/**
 * Headroom that is left at every analogue stage, dB: 10 over the rehearsed peak, and 3 over the surge where that is more (common
 * practice, no source). The planner leaves it, and a fix brings it back.
 */
export const RESERVE = { peak: 10, surge: 3 } as const

/** Differences below this are rounding errors, dB. */
const ROUNDING_DB = 1e-6

/** Whether a point has that reserve. */
export const hasReserve = ({ headroom, surgeHeadroom }: Pick<Point, 'headroom' | 'surgeHeadroom'>): boolean =>
  (headroom ?? Infinity) >= RESERVE.peak - ROUNDING_DB && (surgeHeadroom ?? Infinity) >= RESERVE.surge - ROUNDING_DB

/** Whether a point clips neither as rehearsed nor in the surge. */
export const hasRoom = ({ headroom, surgeHeadroom }: Pick<Point, 'headroom' | 'surgeHeadroom'>): boolean =>
  (headroom ?? Infinity) >= -ROUNDING_DB && (surgeHeadroom ?? Infinity) >= -ROUNDING_DB

/** Levels that close are alike, dB. */
const ALIKE_DB = 0.05

/**
 * Whether a surge that has no room gets less of it still, or one that had room has none any more.
 * @param settled stages that are meant to be driven: a limiter, a saturator
 */
export function raisesSurge(
  before: readonly Point[],
  after: readonly Point[],
  settled: ReadonlySet<string> = new Set(),
): boolean {
  const room = new Map(before.map(({ stage, surgeHeadroom }) => [stage, surgeHeadroom]))
  return after.some(({ stage, surgeHeadroom }) => {
    if (surgeHeadroom === null || surgeHeadroom >= 0 || settled.has(stage)) return false
    const was = room.get(stage)
    return was == null || surgeHeadroom < was - ALIKE_DB
  })
}
