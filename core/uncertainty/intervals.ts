import { drawn, DRAWS } from './monte-carlo'
import type { SessionDoubts, Uncertain, UncertainStrip, Uncertainty } from './uncertainty'
import { placeOf, uncertaintyFrom } from './uncertainty'

/** Stages walked at most for the intervals of one strip: a session of hundreds of strips gets fewer draws. */
const MOST_WALKED = 400_000
const FEWEST = 1000

/**
 * The uncertainty of a session with its curved figures drawn (JCGM 101): their u is that of the draws, and an interval says where 95 %
 * of them lie.
 */
export function withIntervals(doubts: SessionDoubts): Uncertainty {
  const told = uncertaintyFrom(doubts)
  return { ...told, strips: told.strips.map((strip) => stripWithIntervals(doubts, strip)) }
}

export const hasCurved = (strip: UncertainStrip): boolean => placesOf(strip).some(({ figure }) => figure.curved)

/** One strip’s. */
export function stripWithIntervals({ walks, inputs }: SessionDoubts, strip: UncertainStrip): UncertainStrip {
  const places = placesOf(strip).filter(({ figure }) => figure.curved)
  if (places.length === 0) return strip
  const leading = walks.leadingTo(strip.id)
  const stages = walks.order.reduce((sum, each) => sum + (leading.has(each.id) ? each.stages.length : 0), 0)
  const draws = Math.max(FEWEST, Math.min(DRAWS, Math.round(MOST_WALKED / stages)))
  const found = drawn(
    walks,
    inputs,
    strip.id,
    places.map(({ at }) => at),
    draws,
  )
  const better = new Map(
    places.map(({ figure, at }) => {
      const { u, low, high } = found.get(at) as NonNullable<ReturnType<typeof found.get>>
      return [figure, { ...figure, u, interval: { low, high } }] as const
    }),
  )
  const of = <T extends Uncertain | null>(figure: T): T => ((figure && better.get(figure)) ?? figure) as T
  return {
    ...strip,
    points: strip.points.map((point) => ({
      stage: point.stage,
      average: of(point.average),
      peak: of(point.peak),
      surgePeak: of(point.surgePeak),
      headroom: of(point.headroom),
      surgeHeadroom: of(point.surgeHeadroom),
      noise: of(point.noise),
      snr: of(point.snr),
    })),
    sum: strip.sum && { average: of(strip.sum.average), likely: of(strip.sum.likely), bound: of(strip.sum.bound) },
  }
}

/** A strip’s figures of levels with their places in its numbers. */
function placesOf({ points, sum }: UncertainStrip): { figure: Uncertain; at: number }[] {
  const figures = ['average', 'peak', 'surgePeak', 'headroom', 'surgeHeadroom', 'noise', 'snr'] as const
  const own = points.flatMap((point, i) =>
    figures.flatMap((name) => {
      const figure = point[name]
      return figure ? [{ figure, at: placeOf(i, name) }] : []
    }),
  )
  const behind = placeOf(points.length, 'average')
  const meeting = sum ? [sum.average, sum.likely, sum.bound].map((figure, i) => ({ figure, at: behind + i })) : []
  return [...own, ...meeting]
}
