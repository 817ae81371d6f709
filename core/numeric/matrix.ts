import { jStat } from './jstat'

/** The inverse of a square matrix that has one, such as that of a covariance with noise on its diagonal. */
export const inverse = (matrix: readonly (readonly number[])[]): number[][] => {
  const [first] = matrix
  return matrix.length === 1 && first ? [[1 / (first[0] as number)]] : jStat.inv(matrix)
}
