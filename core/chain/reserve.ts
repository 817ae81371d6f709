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
