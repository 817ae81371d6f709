import type { Gumbel } from '../numeric/gumbel'
import { fitGumbel, gumbelError } from '../numeric/gumbel'
import type { Overview } from './levels/overview'

/** What a rehearsal says of the peaks of a longer take. */
export interface ClippingChance {
  /** Blocks of the rehearsal whose greatest peaks were looked at, and their length. */
  blocks: number
  blockSeconds: number
  takeSeconds: number
  law: Gumbel
  /** Chance that the take passes full scale at least once, with its 95 % interval; 0 … 1. */
  chance: number
  between: [number, number]
  /** The peak level that the take passes with a chance of 1 %, dBFS, with its 95 % interval. */
  seldomPassed: number
  seldomBetween: [number, number]
  /** Gain change that brings the chance to 1 %, dB: down where it is negative; and the change that does so with certainty of 97.5 %. */
  change: number
  safeChange: number
}
export type NoClippingChance = { why: 'too-short' | 'clipped' | 'silent' | 'too-even', message: string }

/** Blocks that a rehearsal is cut into where it is long enough, and the fewest that a law is fitted to. */
const BLOCKS = 40
const FEWEST = 15
/** Below this a block holds no programme: a pause says nothing of the peaks. 50 dB under the greatest. */
const PAUSE = 50
const SELDOM = 0.01
/** Two-sided 95 % of a normal variable. */
const SURE = 1.959964

/**
 * The chance of clipping in a take of a length, from the greatest peaks of equal blocks of a rehearsal at the same gains.
 *
 * Block maxima follow a Gumbel law (Coles 2001, from memory): in dB, for the tails of programme peaks fall off by ratio. Of n
 * independent blocks none passes 0 dBFS with the chance F(0)^n. The interval is that of the large-sample errors of the fit
 * (delta method), on the scale on which the law is straight.
 */
export function clippingChance(overview: Overview, takeSeconds: number, clippedRuns: number): ClippingChance | NoClippingChance {
  if (clippedRuns > 0) return { why: 'clipped', message: 'The rehearsal clips itself, so its greatest peaks are cut off. Turn the gain down and rehearse again.' }
  const per = Math.max(1, Math.round(1 / overview.seconds), Math.floor(overview.low.length / BLOCKS))
  const peaks: number[] = []
  for (let i = 0; i + per <= overview.low.length; i += per) {
    let size = 0
    for (let k = i; k < i + per; k++) size = Math.max(size, overview.high[k] as number, -(overview.low[k] as number))
    if (size > 0) peaks.push(20 * Math.log10(size))
  }
  if (peaks.length === 0) return { why: 'silent', message: 'The recording is silent.' }
  const loudest = Math.max(...peaks)
  const maxima = peaks.filter((peak) => peak > loudest - PAUSE)
  const blockSeconds = per * overview.seconds
  if (maxima.length < FEWEST) return { why: 'too-short', message: `There are ${maxima.length} blocks of a second or more with programme in them; ${FEWEST} are needed. Rehearse for half a minute or longer.` }
  const law = fitGumbel(maxima)
  if (!law) return { why: 'too-even', message: 'All blocks have the same greatest peak, as a test signal has: no law of peaks can be told from it.' }
  return { blocks: maxima.length, blockSeconds, takeSeconds, law, ...ofTake(law, Math.max(1, takeSeconds / blockSeconds)) }
}

function ofTake(law: Gumbel, blocks: number) {
  const { location, scale } = law
  const many = Math.log(blocks)
  // The greatest of n blocks has the law moved up by scale · ln n. At full scale its reduced value is:
  const reduced = -location / scale - many
  const passing = (y: number) => -Math.expm1(-Math.exp(-y))
  const error = gumbelError(law, -location / scale) / scale
  const seldomReduced = many - Math.log(-Math.log1p(-SELDOM))
  const seldomPassed = location + scale * seldomReduced
  const seldomError = SURE * gumbelError(law, seldomReduced)
  return {
    chance: passing(reduced), between: [passing(reduced + SURE * error), passing(reduced - SURE * error)] as [number, number],
    seldomPassed, seldomBetween: [seldomPassed - seldomError, seldomPassed + seldomError] as [number, number],
    change: -seldomPassed, safeChange: -(seldomPassed + seldomError),
  }
}
