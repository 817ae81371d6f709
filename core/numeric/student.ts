/** Density of Student's t without its constant. */
const shape = (t: number, freedom: number) => (1 + (t * t) / freedom) ** (-(freedom + 1) / 2)

/** ∫ of the shape from 0 to t, by Simpson's rule over atan-spaced steps, so that the long tails are covered. */
function area(t: number, freedom: number): number {
  const steps = 400
  const end = Math.atan(t)
  let total = 0
  for (let i = 0; i <= steps; i++) {
    const angle = (end * i) / steps
    const weight = i === 0 || i === steps ? 1 : i % 2 === 1 ? 4 : 2
    total +=
      weight * (i === steps && t === Infinity ? endOf(freedom) : shape(Math.tan(angle), freedom) / Math.cos(angle) ** 2)
  }
  return (total * end) / steps / 3
}

/** What the integrand tends to at infinity: only one degree of freedom has tails that heavy. */
const endOf = (freedom: number) => (freedom === 1 ? 1 : 0)

const known = new Map<string, number>()

/**
 * The t that a Student variable stays below in size with a probability (two-sided).
 * Example (tables): 95 %, 10 degrees of freedom: 2.228; 5: 2.571.
 */
export function studentQuantile(probability: number, freedom: number): number {
  const key = `${probability} ${freedom}`
  const found = known.get(key) ?? search(probability, freedom)
  known.set(key, found)
  return found
}

/** By halving on a logarithmic scale; the whole area stands for certainty. */
function search(probability: number, freedom: number): number {
  const half = area(Infinity, freedom)
  let [low, high] = [1e-6, 1e6]
  while (high - low > 1e-9 * high) {
    const middle = Math.sqrt(low * high)
    if (area(middle, freedom) / half < probability) low = middle
    else high = middle
  }
  return (low + high) / 2
}
