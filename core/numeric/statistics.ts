import * as statistics from 'simple-statistics'

/** Of a list that is not empty. */
export const mean = (values: readonly number[]): number => statistics.mean([...values])

/** The middle one, or the mean of the two in the middle. */
export const median = (values: readonly number[]): number => statistics.median([...values])

/** Of a sample, with n − 1; 0 for a single value. */
export const standardDeviation = (values: readonly number[]): number =>
  values.length < 2 ? 0 : statistics.sampleStandardDeviation([...values])

/** From the middle of the range to its ends. */
export const halfRange = (values: readonly number[]): number => (Math.max(...values) - Math.min(...values)) / 2

/** The values under which those parts of a list lie. */
export const quantiles = (values: readonly number[], parts: readonly number[]): number[] =>
  statistics.quantile([...values], [...parts])
