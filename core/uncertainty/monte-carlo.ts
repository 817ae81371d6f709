import { seeded, seededNormal } from '../numeric/random'
import { mean, quantiles, standardDeviation } from '../numeric/statistics'
import type { UncertainInput } from './input'
import type { Numbers, Step, Walks } from './walks'

/** How a figure came out over many draws. */
export interface Drawn {
  readonly mean: number
  readonly u: number
  /** The middle 95 %. */
  readonly low: number
  readonly high: number
}

/** Draws that JCGM 101 asks for in practice, to have the ends of 95 % to two digits. */
export const DRAWS = 20_000

const SEED = 20_101

/**
 * Propagation of distributions (JCGM 101): every input is drawn from its law – rectangular for half widths and half ranges, normal
 * for standard deviations –, the strip is walked, and the figures are counted. Nothing is taken to be straight.
 * @param strip whose figures are wanted; the same draws for the same session
 */
export function drawn(
  walks: Walks,
  inputs: readonly UncertainInput[],
  strip: string,
  figures: readonly number[],
  draws = DRAWS,
): Map<number, Drawn> {
  const reaching = inputs.filter((input) => input.doubt.u > 0 && walks.reach(input).has(strip))
  const leading = walks.leadingTo(strip)
  const [even, normal] = [seeded(SEED), seededNormal(SEED + 1)]
  const draw = ({ doubt }: UncertainInput) => (doubt.law === 'rectangular' ? Math.sqrt(3) * (2 * even() - 1) : normal())
  const columns = figures.map(() => new Float64Array(draws))
  for (let n = 0; n < draws; n++) {
    const steps: Step[] = reaching.map((input) => ({ input, z: draw(input) }))
    const numbers: Numbers = walks.moved(steps, leading).get(strip) ?? walks.numbersAt(strip)
    figures.forEach((i, k) => {
      ;(columns[k] as Float64Array)[n] = numbers[i] as number
    })
  }
  return new Map(figures.map((i, k) => [i, told(columns[k] as Float64Array)]))
}

function told(values: Float64Array): Drawn {
  const list = [...values]
  const [low, high] = quantiles(list, [0.025, 0.975]) as [number, number]
  return { mean: mean(list), u: standardDeviation(list), low, high }
}
