/** Of a list that is not empty. */
export const mean = (values: readonly number[]): number => values.reduce((sum, each) => sum + each, 0) / values.length

/** Of a sample, with n − 1; 0 for a single value. */
export function standardDeviation(values: readonly number[]): number {
  if (values.length < 2) return 0
  const middle = mean(values)
  return Math.sqrt(values.reduce((sum, each) => sum + (each - middle) ** 2, 0) / (values.length - 1))
}

/** The middle one, or the mean of the two in the middle. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  const half = sorted.length >> 1
  return sorted.length % 2 === 1
    ? (sorted[half] as number)
    : ((sorted[half - 1] as number) + (sorted[half] as number)) / 2
}

/** From the middle of the range to its ends. */
export const halfRange = (values: readonly number[]): number => (Math.max(...values) - Math.min(...values)) / 2
