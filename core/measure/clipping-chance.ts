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
export type NoClippingChance = { why: 'too-short' | 'clipped' | 'silent' | 'too-even'; message: string }

/** Blocks that a rehearsal is cut into where it is long enough, and the fewest that a law is fitted to. */
const BLOCKS = 40
const FEWEST = 15
/** Below this part of the greatest peak, 50 dB under it, a block holds no programme: a pause says nothing of the peaks. */
const PAUSE = 10 ** (-50 / 20)
const SELDOM = 0.01
/** Two-sided 95 % of a normal variable. */
const SURE = 1.959964

/**
 * The chance of clipping in a take of a length, from the greatest peaks of equal blocks of a rehearsal at the same gains.
 *
 * Block maxima follow a Gumbel law (Coles 2001, from memory), here in amplitude: the samples of programme thin out towards
 * the peaks at least as fast as an exponential, and the maxima of such samples do. Of n independent blocks none passes full
 * scale with the chance F(1)^n. The intervals are those of the large-sample errors of the fit (delta method), on the scale on
 * which the law is straight.
 */
export function clippingChance(
  overview: Overview,
  takeSeconds: number,
  clippedRuns: number,
): ClippingChance | NoClippingChance {
  if (clippedRuns > 0)
    return {
      why: 'clipped',
      message: 'The rehearsal clips itself, so its greatest peaks are cut off. Turn the gain down and rehearse again.',
    }
  const per = Math.max(1, Math.round(1 / overview.seconds), Math.floor(overview.low.length / BLOCKS))
  const peaks = blockPeaks(overview, per)
  const loudest = Math.max(0, ...peaks)
  if (loudest === 0) return { why: 'silent', message: 'The recording is silent.' }
  const maxima = peaks.filter((peak) => peak > loudest * PAUSE)
  const blockSeconds = per * overview.seconds
  if (maxima.length < FEWEST)
    return {
      why: 'too-short',
      message: `There are ${maxima.length} blocks of a second or more with programme in them; ${FEWEST} are needed. Rehearse for half a minute or longer.`,
    }
  const law = fitGumbel(maxima)
  if (!law)
    return {
      why: 'too-even',
      message: 'All blocks have the same greatest peak, as a test signal has: no law of peaks can be told from it.',
    }
  return {
    blocks: maxima.length,
    blockSeconds,
    takeSeconds,
    law,
    ...ofTake(law, Math.max(1, takeSeconds / blockSeconds)),
  }
}

/** The greatest amplitude of every block of so many stretches. */
function blockPeaks({ low, high }: Overview, per: number): number[] {
  const peaks: number[] = []
  for (let i = 0; i + per <= low.length; i += per) {
    let size = 0
    for (let k = i; k < i + per; k++) size = Math.max(size, high[k] as number, -(low[k] as number))
    peaks.push(size)
  }
  return peaks
}

function ofTake(law: Gumbel, blocks: number) {
  const { location, scale } = law
  const many = Math.log(blocks)
  // The greatest of n blocks has the law moved up by scale · ln n.
  const atFullScale = (1 - location) / scale
  const passing = (reduced: number) => -Math.expm1(-Math.exp(many - reduced))
  const error = (SURE * gumbelError(law, atFullScale)) / scale
  const seldomReduced = many - Math.log(-Math.log1p(-SELDOM))
  const seldom = location + scale * seldomReduced
  const seldomError = SURE * gumbelError(law, seldomReduced)
  const level = (amplitude: number) => 20 * Math.log10(Math.max(amplitude, location))
  return {
    chance: passing(atFullScale),
    between: [passing(atFullScale + error), passing(atFullScale - error)] as [number, number],
    seldomPassed: level(seldom),
    seldomBetween: [level(seldom - seldomError), level(seldom + seldomError)] as [number, number],
    change: -level(seldom),
    safeChange: -level(seldom + seldomError),
  }
}
