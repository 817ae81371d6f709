import { median } from '../numeric/statistics'
import { blockPowers } from './block-levels'

/** A stretch of a recording, in samples. */
export interface Stretch {
  from: number
  to: number
}

const BLOCK_SECONDS = 0.05
/** Taken off at both ends, so that neither the fade nor the hand at the knob is in it. */
const MARGIN_SECONDS = 0.1

export interface Steadiness {
  /** A level within this of the one before belongs to the same stretch, dB. */
  within: number
  /** Shortest stretch that counts, s. */
  least: number
}

/**
 * Stretches of a recording in which the level stands still, in order. A stretch goes on as long as each block lies near the
 * median of those so far; silence belongs to none.
 */
export function steadyStretches(samples: Float64Array, sampleRate: number, { within, least }: Steadiness): Stretch[] {
  const length = Math.max(1, Math.round(BLOCK_SECONDS * sampleRate))
  const levels = blockPowers(samples, length).map((power) => (power > 0 ? 10 * Math.log10(power) : -Infinity))
  const margin = Math.round(MARGIN_SECONDS * sampleRate)
  const found: Stretch[] = []
  for (let first = 0; first < levels.length;) {
    let next = first + 1
    let middle = levels[first] as number
    while (next < levels.length && Math.abs((levels[next] as number) - middle) <= within) {
      next++
      // The median needs a few blocks to be worth more than the first.
      if (next - first <= 20) middle = median(levels.slice(first, next))
    }
    const stretch = { from: first * length + margin, to: next * length - margin }
    if (Number.isFinite(middle) && stretch.to - stretch.from >= least * sampleRate) found.push(stretch)
    first = next
  }
  return found
}

/** The steady stretch that lasts longest; the whole recording where none is steady. */
export function longestSteady(samples: Float64Array, sampleRate: number, steadiness: Steadiness): Stretch {
  const length = ({ from, to }: Stretch) => to - from
  return (
    steadyStretches(samples, sampleRate, steadiness).reduce<Stretch | null>(
      (best, each) => (best && length(best) >= length(each) ? best : each),
      null,
    ) ?? { from: 0, to: samples.length }
  )
}
