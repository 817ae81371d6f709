import { jStat } from './jstat'

/** The value that a standard normal variable stays under with a chance. Example (tables): 99 %: 2.326. */
export const normalQuantile = (chance: number): number => jStat.normal.inv(chance, 0, 1)

const known = new Map<string, number>()

/**
 * The t that a Student variable stays below in size with a probability (two-sided).
 * Example (tables): 95 %, 10 degrees of freedom: 2.228; 5: 2.571.
 */
export function studentQuantile(probability: number, freedom: number): number {
  const key = `${probability} ${freedom}`
  const found = known.get(key) ?? jStat.studentt.inv((1 + probability) / 2, freedom)
  known.set(key, found)
  return found
}
