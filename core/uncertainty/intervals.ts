import { DRAWS, Draws } from './monte-carlo'
import type { SessionUncertainty, Uncertain, UncertainStrip, Uncertainty } from './uncertainty'
import { placeOf } from './figures'
import { uncertaintyFrom } from './uncertainty'

/** Stages walked at most for all intervals of a session: one of many strips gets fewer draws. */
const MOST_WALKED = 400_000
const FEWEST = 500

/**
 * The uncertainty of a session with its curved figures drawn (JCGM 101): their u is that of the draws, and an interval says where 95 %
 * of them lie.
 */
export function withIntervals(doubts: SessionUncertainty): Uncertainty {
  const told = uncertaintyFrom(doubts)
  const draws = drawsFor(doubts, told.strips)
  while (draws && !draws.areEnough) draws.batch()
  return draws ? { ...told, strips: withDrawn(told.strips, draws) } : told
}

/** Draws of what is curved in a session, as many as there is time for; `null` where nothing is to be drawn. */
export function drawsFor(
  { evaluations, inputs, readings }: SessionUncertainty,
  strips: readonly UncertainStrip[],
): Draws | null {
  // Draws know nothing of what readings tie together: what they leave is told by the straight line.
  if (readings.areThere) return null
  const wanted = new Map(
    strips
      .map((strip) => [strip.id, curvedIn(strip).map(({ at }) => at)] as const)
      .filter(([, places]) => places.length > 0),
  )
  if (wanted.size === 0) return null
  const leading = new Set([...wanted.keys()].flatMap((strip) => [...evaluations.leadingTo(strip)]))
  const stages = evaluations.order.reduce((sum, strip) => sum + (leading.has(strip.id) ? strip.stages.length : 0), 0)
  const most = Math.max(FEWEST, Math.min(DRAWS, Math.round(MOST_WALKED / Math.max(1, stages))))
  return new Draws(evaluations, inputs, wanted, most)
}

/** The strips with what was drawn in the place of what is curved. */
export const withDrawn = (strips: readonly UncertainStrip[], draws: Draws): UncertainStrip[] =>
  strips.map((strip) => {
    const better = new Map(
      curvedIn(strip).flatMap(({ figure, at }) => {
        const drawn = draws.of(strip.id, at)
        return drawn
          ? [[figure, { ...figure, u: drawn.u, interval: { low: drawn.low, high: drawn.high } }] as const]
          : []
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
  })

/** A strip’s curved figures of levels with their places in its numbers. */
function curvedIn({ points, sum }: UncertainStrip): { figure: Uncertain; at: number }[] {
  const figures = ['average', 'peak', 'surgePeak', 'headroom', 'surgeHeadroom', 'noise', 'snr'] as const
  const own = points.flatMap((point, i) =>
    figures.flatMap((name) => {
      const figure = point[name]
      return figure ? [{ figure, at: placeOf(i, name) }] : []
    }),
  )
  const behind = placeOf(points.length, 'average')
  const summed = sum ? [sum.average, sum.likely, sum.bound].map((figure, i) => ({ figure, at: behind + i })) : []
  return [...own, ...summed].filter(({ figure }) => figure.curved)
}
