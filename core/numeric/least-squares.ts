import { jStat } from './jstat'

/** A linear least-squares solution: y ≈ X·coefficients. */
export interface LeastSquares {
  coefficients: number[]
  residuals: number[]
  /** Degrees of freedom: points less coefficients. */
  freedom: number
  /** Residual standard deviation, √(Σr²/freedom); `null` without freedom. */
  deviation: number | null
  /** (XᵀX)⁻¹: times the variance of y it is the covariance of the coefficients. */
  inverse: number[][]
}

/** Columns that depend on each other to this relative precision cannot be told apart. */
const RANK_TOLERANCE = 1e-10

/**
 * Solves by QR decomposition, with columns scaled to unit length for condition.
 * @returns `null` where there are fewer rows than columns, or the columns cannot be told apart.
 */
export function leastSquares(rows: readonly (readonly number[])[], y: readonly number[]): LeastSquares | null {
  const [count, width] = [rows.length, rows[0]?.length ?? 0]
  if (count < width || width === 0) return null
  const scale = Array.from({ length: width }, (_, k) => Math.hypot(...rows.map((row) => row[k] ?? 0)))
  if (scale.some((each) => each === 0)) return null
  const x = rows.map((row) => row.map((value, k) => value / (scale[k] as number)))
  const [q, r] = jStat.QR(x)
  const diagonal = r.map((row, k) => Math.abs(row[k] as number))
  // A column that is a multiple of another leaves nothing to scale to unit length: its diagonal is no number.
  if (!diagonal.every((each) => each >= RANK_TOLERANCE * Math.max(...diagonal))) return null
  // (XᵀX)⁻¹ = R⁻¹R⁻ᵀ, scaled back.
  const root = jStat.inv(r)
  const inverse = root.map((one) => root.map((other) => dot(one, other)))
  const projected = diagonal.map((_, k) => q.reduce((sum, row, i) => sum + (row[k] as number) * (y[i] as number), 0))
  const scaled = root.map((row) => dot(row, projected))
  const coefficients = scaled.map((value, k) => value / (scale[k] as number))
  const residuals = rows.map(
    (row, i) => (y[i] as number) - row.reduce((sum, value, k) => sum + value * (coefficients[k] as number), 0),
  )
  const freedom = count - width
  return {
    coefficients,
    residuals,
    freedom,
    inverse: inverse.map((row, i) => row.map((each, k) => each / ((scale[i] as number) * (scale[k] as number)))),
    deviation: freedom > 0 ? Math.sqrt(residuals.reduce((sum, each) => sum + each * each, 0) / freedom) : null,
  }
}

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((sum, each, k) => sum + each * (b[k] as number), 0)
