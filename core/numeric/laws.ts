import { jStat } from './jstat'

/**
 * The value that a standard normal variable stays under with a chance, −√2·erfc⁻¹(2p). Example (tables): 99 %: 2.326.
 */
export const normalQuantile = (chance: number): number => -Math.SQRT2 * jStat.erfcinv(2 * chance)

/**
 * The chance that a standard normal variable stays under a value, Φ(z) = (1 + erf(z/√2))/2; what is beyond its resolution is 0.
 * Example (tables): −2.326: 1 %; −1: 15.87 %.
 */
export const normalChance = (z: number): number => Math.min(1, Math.max(0, (1 + jStat.erf(z / Math.SQRT2)) / 2))

const known = new Map<string, number>()

/** From the inverse of the incomplete beta function: x = I⁻¹(1 − p; n/2, 1/2), t = √(n(1 − x)/x). */
function studentInverse(probability: number, freedom: number): number {
  const x = jStat.ibetainv(1 - probability, freedom / 2, 0.5)
  return Math.sqrt((freedom * (1 - x)) / x)
}

/**
 * The t that a Student variable stays below in size with a probability (two-sided).
 * Example (tables): 95 %, 10 degrees of freedom: 2.228; 5: 2.571.
 */
export function studentQuantile(probability: number, freedom: number): number {
  const key = `${probability} ${freedom}`
  const found = known.get(key) ?? studentInverse(probability, freedom)
  known.set(key, found)
  return found
}
