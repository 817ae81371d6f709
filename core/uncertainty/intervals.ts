import { drawn, DRAWS } from './monte-carlo'
import type { SessionDoubts, Uncertain, UncertainStrip, Uncertainty } from './uncertainty'
import { placeOf } from './figures'
import { uncertaintyFrom } from './uncertainty'

/** Stages walked at most for all intervals of a session: one of many strips gets fewer draws. */
const MOST_WALKED = 500_000
const FEWEST = 500

/**
 * The uncertainty of a session with its curved figures drawn (JCGM 101): their u is that of the draws, and an interval says where 95 %
 * of them lie.
 */
export function withIntervals(doubts: SessionDoubts): Uncertainty {
  const told = uncertaintyFrom(doubts)
  const draws = drawsFor(doubts, told.strips)
  return { ...told, strips: told.strips.map((strip) => stripWithIntervals(doubts, strip, draws)) }
}

/** Draws for each curved strip of a session, as many as there is time for. */
export function drawsFor(
  { walks }: SessionDoubts,
  strips: readonly UncertainStrip[],
  mostWalked = MOST_WALKED,
): number {
  const stages = strips.filter(hasCurved).reduce((sum, { id }) => {
    const leading = walks.leadingTo(id)
    return sum + walks.order.reduce((own, each) => own + (leading.has(each.id) ? each.stages.length : 0), 0)
  }, 0)
  return Math.max(FEWEST, Math.min(DRAWS, Math.round(mostWalked / Math.max(1, stages))))
}

export const hasCurved = (strip: UncertainStrip): boolean => placesOf(strip).some(({ figure }) => figure.curved)

/** One strip’s. */
export function stripWithIntervals(
  { walks, inputs, readings }: SessionDoubts,
  strip: UncertainStrip,
  draws: number,
): UncertainStrip {
  // Draws know nothing of what readings tie together: what they leave is told by the straight line.
  if (readings.areThere) return strip
  const places = placesOf(strip).filter(({ figure }) => figure.curved)
  if (places.length === 0) return strip
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
