import type { Point } from '../chain/cascade'
import { seeded } from '../numeric/random'
import type { Performance } from '../render/performer'

/** How far a simulated performer is from what the session says of the source, dB: within what nobody knows of it. */
const MOST_OFF = 5

/** How much louder than planned the simulated performer of a strip plays: the same for a strip every time, dB. */
export function deviationOf(strip: string): number {
  const random = seeded([...strip].reduce((sum, letter) => (Math.imul(sum, 31) + letter.charCodeAt(0)) | 0, 7))
  random()
  return Math.round(10 * MOST_OFF * (2 * random() - 1)) / 10
}

/**
 * What is heard of a strip at a stage, from its points, played so much louder than planned. Whatever clips before cuts it there.
 * @param index of the stage’s point
 */
export function performanceAt(points: readonly Point[], index: number, louder: number): Performance | null {
  const point = points[index]
  if (!point || point.unit !== 'dBFS') return null
  // Each stage's ceiling as it would stand at this place.
  const room = points.slice(0, index + 1).map(({ headroom }) => headroom ?? Infinity)
  const clipsAt = Math.min(0, point.peak + Math.min(...room))
  return {
    average: point.average + louder,
    peak: point.peak + louder,
    surge: point.surgePeak - point.peak,
    noise: point.noise,
    clipsAt,
  }
}
