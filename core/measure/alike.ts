import { median } from '../numeric/statistics'
import type { Stretch } from './steady'

/**
 * The longest run of levels that lie within so many decibels of the usual one, counted in levels; `null` where there is none.
 * Silence is never in it.
 */
export function longestAlike(levels: readonly number[], within: number): Stretch | null {
  const heard = levels.filter(Number.isFinite)
  if (heard.length === 0) return null
  const usual = median(heard)
  let [best, from] = [{ from: 0, to: 0 }, 0]
  for (let i = 0; i <= levels.length; i++) {
    if (i < levels.length && Math.abs((levels[i] as number) - usual) <= within) continue
    if (i - from > best.to - best.from) best = { from, to: i }
    from = i + 1
  }
  return best.to > best.from ? best : null
}

/** A run of levels as the samples they were made from, `length` samples each; the last run takes along what was too little for a level. */
export const samplesOf = ({ from, to }: Stretch, length: number, count: number, samples: Float64Array): Float64Array =>
  samples.subarray(from * length, to === count ? undefined : to * length)
