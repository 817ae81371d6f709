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
 * Solves by Householder QR, with columns scaled to unit length for condition.
 * @returns `null` where there are fewer rows than columns, or the columns cannot be told apart.
 */
export function leastSquares(rows: readonly (readonly number[])[], y: readonly number[]): LeastSquares | null {
  const [count, width] = [rows.length, rows[0]?.length ?? 0]
  if (count < width || width === 0) return null
  const scale = Array.from({ length: width }, (_, k) => Math.hypot(...rows.map((row) => row[k] ?? 0)))
  if (scale.some((each) => each === 0)) return null
  const a = rows.map((row) => row.map((value, k) => value / (scale[k] as number)))
  const b = [...y]
  const diagonal: number[] = []
  for (let k = 0; k < width; k++) {
    const norm = Math.hypot(...a.slice(k).map((row) => row[k] as number))
    const head = (a[k] as number[])[k] as number
    const alpha = head > 0 ? -norm : norm
    diagonal.push(alpha)
    const v = a.slice(k).map((row) => row[k] as number)
    v[0] = head - alpha
    const length = v.reduce((sum, each) => sum + each * each, 0)
    if (length === 0) continue
    const reflect = (get: (i: number) => number, set: (i: number, value: number) => void) => {
      const dot = v.reduce((sum, each, i) => sum + each * get(i), 0)
      v.forEach((each, i) => set(i, get(i) - (2 * dot * each) / length))
    }
    for (let j = k; j < width; j++)
      reflect(
        (i) => (a[k + i] as number[])[j] as number,
        (i, value) => {
          ;(a[k + i] as number[])[j] = value
        },
      )
    reflect(
      (i) => b[k + i] as number,
      (i, value) => {
        b[k + i] = value
      },
    )
  }
  const largest = Math.max(...diagonal.map(Math.abs))
  if (diagonal.some((each) => Math.abs(each) < RANK_TOLERANCE * largest)) return null
  const upper = (i: number, j: number) => (a[i] as number[])[j] as number
  const solve = (right: readonly number[]) => {
    const x = Array<number>(width).fill(0)
    for (let i = width - 1; i >= 0; i--) {
      let rest = right[i] as number
      for (let j = i + 1; j < width; j++) rest -= upper(i, j) * (x[j] as number)
      x[i] = rest / upper(i, i)
    }
    return x
  }
  const coefficients = solve(b).map((value, k) => value / (scale[k] as number))
  // The columns of R⁻¹; (XᵀX)⁻¹ = R⁻¹R⁻ᵀ, scaled back.
  const columns = Array.from({ length: width }, (_, k) =>
    solve(Array.from({ length: width }, (_unit, i) => (i === k ? 1 : 0))),
  )
  const inverse = Array.from({ length: width }, (_, i) =>
    Array.from(
      { length: width },
      (_inner, j) =>
        columns.reduce((sum, column) => sum + (column[i] as number) * (column[j] as number), 0) /
        ((scale[i] as number) * (scale[j] as number)),
    ),
  )
  const residuals = rows.map(
    (row, i) => (y[i] as number) - row.reduce((sum, value, k) => sum + value * (coefficients[k] as number), 0),
  )
  const freedom = count - width
  return {
    coefficients,
    residuals,
    freedom,
    inverse,
    deviation: freedom > 0 ? Math.sqrt(residuals.reduce((sum, each) => sum + each * each, 0) / freedom) : null,
  }
}
