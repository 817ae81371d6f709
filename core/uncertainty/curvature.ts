import type { UncertainInput } from './input'
import type { Effect, Linear } from './linear'
import type { PerturbedEvaluations } from './perturbed-evaluations'
import { FIGURES } from './figures'

/** A figure counts as curved when it lies that far beside the straight line, two of its u away, in u. */
const BESIDE = 0.2

/** Below that part of u what single inputs do hints at no curve. */
const STRAIGHT = 0.02

/** What no meter shows is no curve, dB. */
const LEAST = 0.02

/** A ceiling or a curve nearer than that many u can bend what no single step showed. */
const NEAR = 3

/**
 * Figures that bend within their own uncertainty, by strip: all inputs moved together to where the figure would most likely be two
 * of its u higher, and lower, and the figure compared with the straight line. A limiter or a ceiling does that, and a noise of
 * two makers of which now the one and now the other leads.
 */
export function curvedFigures(
  evaluations: PerturbedEvaluations,
  linear: ReadonlyMap<string, Linear>,
): Map<string, Set<number>> {
  const found = new Map<string, Set<number>>()
  for (const each of linear.values()) {
    const leading = evaluations.leadingTo(each.strip)
    const kinks = [...leading].flatMap((strip) => kinksOf(evaluations, linear.get(strip) as Linear))
    const towards = new Towards(evaluations, each, leading, kinks)
    const bent = new Set<number>()
    each.values.forEach((value, i) => {
      if (Number.isNaN(value)) return
      const hints = kinks.length > 0 || bendOf(each, i) > STRAIGHT * (each.u[i] as number)
      if (hints && towards.isCurved(i)) bent.add(i)
    })
    if (bent.size > 0) found.set(each.strip, bent)
  }
  return found
}

const bendOf = ({ effects }: Linear, i: number) =>
  effects.reduce((sum, { bend }) => sum + Math.abs(bend[i] as number), 0)

/** A figure of a strip towards which everything is moved. */
interface Direction {
  readonly effects: readonly Effect[]
  readonly u: number
  readonly i: number
}

/** The levels at which a strip has a ceiling within reach, or a curve at work. */
function kinksOf(evaluations: PerturbedEvaluations, { strip, u, effects }: Linear): Direction[] {
  return evaluations.cascadeOf(strip).points.flatMap((point, k) => {
    const i = k * FIGURES.length + FIGURES.indexOf('surgePeak')
    const headroom = k * FIGURES.length + FIGURES.indexOf('surgeHeadroom')
    const near = point.surgeHeadroom !== null && Math.abs(point.surgeHeadroom) < NEAR * (u[headroom] as number)
    const bends = point.reduction !== null && Math.abs(point.reduction.surge) > 0
    return (near || bends || point.clipped) && (u[i] as number) > 0 ? [{ effects, u: u[i] as number, i }] : []
  })
}

/** A strip with its inputs moved the most likely way; figures that the same inputs move alike share one walk. */
class Towards {
  private readonly known = new Map<string, Float64Array>()

  constructor(
    private readonly evaluations: PerturbedEvaluations,
    private readonly linear: Linear,
    private readonly leading: ReadonlySet<string>,
    private readonly kinks: readonly Direction[],
  ) {}

  isCurved(i: number): boolean {
    const { u, effects } = this.linear
    const own = u[i] as number
    const directions = own > 0 ? [{ effects, u: own, i }, ...this.kinks] : this.kinks
    return directions.some((direction) => [2, -2].some((way) => this.departs(i, direction, way)))
  }

  /** Whether the figure lies beside the straight line when everything is moved towards a level. */
  private departs(i: number, { effects, u, i: towards }: Direction, way: number): boolean {
    const { values, u: own, effects: straight } = this.linear
    const places = new Map(effects.map((effect) => [effect.input, mostLikely(effect, towards, u, way)]))
    const line = straight.reduce((sum, { input, slope }) => sum + (slope[i] as number) * (places.get(input) ?? 0), 0)
    const there = this.at(places)[i] as number
    return Math.abs(there - (values[i] as number) - line) > Math.max(LEAST, BESIDE * (own[i] as number))
  }

  private at(places: ReadonlyMap<UncertainInput, number>): Float64Array {
    const steps = [...places].filter(([, z]) => Math.abs(z) > 0.005).map(([input, z]) => ({ input, z }))
    const key = steps.map(({ input, z }) => `${input.path} ${Math.round(100 * z)}`).join()
    const known = this.known.get(key)
    if (known) return known
    const found = this.evaluations.moved(steps, this.leading).get(this.linear.strip) ?? this.linear.values
    this.known.set(key, found)
    return found
  }
}

/** Where an input most likely stands when the figure is so many of its u off: its part of the way, within its own width. */
function mostLikely({ input, slope }: Effect, i: number, u: number, way: number): number {
  const z = (way * (slope[i] as number)) / u
  return input.doubt.law === 'rectangular' ? Math.max(-Math.sqrt(3), Math.min(Math.sqrt(3), z)) : z
}
