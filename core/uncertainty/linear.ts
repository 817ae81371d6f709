import type { UncertainInput } from './input'
import type { PerturbedEvaluations } from './perturbed-evaluations'

/** How an input moves a strip’s figures: by its standard uncertainty, and how far up and down differ. */
export interface Effect {
  readonly input: UncertainInput
  /** ∂y/∂x · u, in the figure’s unit. */
  readonly slope: Float64Array
  /** y(x + u) + y(x − u) − 2y(x). */
  readonly bend: Float64Array
}

/** A strip’s figures and what moves them. */
export interface Linear {
  readonly strip: string
  readonly values: Float64Array
  readonly u: Float64Array
  readonly effects: readonly Effect[]
}

/**
 * What every input does to every strip’s figures: central differences over ± its standard uncertainty through the cascade itself.
 *
 * u = √Σ(∂y/∂xᵢ·uᵢ)² (GUM, JCGM 100, 5.1.2), inputs independent.
 */
export function linearised(evaluations: PerturbedEvaluations, inputs: readonly UncertainInput[]): Map<string, Linear> {
  const effects = new Map<string, Effect[]>(evaluations.order.map(({ id }) => [id, []]))
  for (const input of inputs) {
    if (input.doubt.u === 0) continue
    const up = evaluations.moved([{ input, z: 1 }])
    const down = evaluations.moved([{ input, z: -1 }])
    for (const [strip, above] of up) {
      const [below, now] = [down.get(strip) as Float64Array, evaluations.numbersAt(strip)]
      const slope = above.map((each, i) => (each - (below[i] as number)) / 2)
      if (slope.every((each) => each === 0 || Number.isNaN(each))) continue
      const bend = above.map((each, i) => each + (below[i] as number) - 2 * (now[i] as number))
      effects.get(strip)?.push({ input, slope, bend })
    }
  }
  const found = new Map<string, Linear>()
  for (const [strip, own] of effects) {
    const values = evaluations.numbersAt(strip)
    const u = values.map((_, i) => Math.sqrt(own.reduce((sum, { slope }) => sum + (slope[i] as number) ** 2, 0)))
    found.set(strip, { strip, values, u, effects: own })
  }
  return found
}
