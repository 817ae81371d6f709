import { mean, standardDeviation } from './statistics'

/** The law of the largest of many: F(x) = exp(−exp(−(x − location)/scale)). */
export interface Gumbel {
  location: number
  scale: number
  /** Values it was fitted to. */
  count: number
}

const EULER = 0.5772156649015329
/** Variance of a standard Gumbel variable. */
const SPREAD = Math.PI ** 2 / 6

/**
 * Fits a Gumbel law to block maxima by maximum likelihood (Coles, *An Introduction to Statistical Modeling of Extreme
 * Values*, 2001, 3.3; from memory): scale = mean − Σ x·e^(−x/scale) / Σ e^(−x/scale), solved by halving.
 * @returns `null` for fewer than three values, or values that are all the same.
 */
export function fitGumbel(maxima: readonly number[]): Gumbel | null {
  const deviation = standardDeviation(maxima)
  if (maxima.length < 3 || deviation === 0) return null
  const middle = mean(maxima)
  // Values counted from the mean keep the exponentials in range.
  const off = maxima.map((x) => x - middle)
  const excess = (scale: number) => {
    let [weights, weighted] = [0, 0]
    for (const x of off) {
      const weight = Math.exp(-x / scale)
      weights += weight
      weighted += x * weight
    }
    return scale + weighted / weights
  }
  let [low, high] = [deviation / 100, 10 * deviation]
  for (let i = 0; i < 80; i++) {
    const scale = (low + high) / 2
    if (excess(scale) > 0) high = scale
    else low = scale
  }
  const scale = (low + high) / 2
  return {
    scale,
    location: middle - scale * Math.log(mean(off.map((x) => Math.exp(-x / scale)))),
    count: maxima.length,
  }
}

/** F(x): the chance that one block stays under x. */
export const gumbelBelow = ({ location, scale }: Gumbel, x: number): number =>
  Math.exp(-Math.exp(-(x - location) / scale))

/** The value that one block stays under with a chance. Example: chance e⁻¹ is the location. */
export const gumbelQuantile = ({ location, scale }: Gumbel, chance: number): number =>
  location - scale * Math.log(-Math.log(chance))

/**
 * Standard error of location + reduced·scale, from the large-sample covariance of the two estimates:
 * scale²/n · (1 + (6/π²)(1 − γ + reduced)²).
 */
export const gumbelError = ({ scale, count }: Gumbel, reduced: number): number =>
  scale * Math.sqrt((1 + (1 - EULER + reduced) ** 2 / SPREAD) / count)
