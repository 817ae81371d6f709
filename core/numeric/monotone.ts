/** A curve through points that rises wherever they rise, and its inverse. */
export interface MonotoneCurve {
  /** `null` outside the points. */
  at: (x: number) => number | null
  /** The least x with that value; `null` outside the points. */
  inverse: (y: number) => number | null
}

interface Point {
  x: number
  y: number
}

/**
 * A smooth curve through points of rising x and not falling y: piecewise cubic, with slopes after Fritsch and Carlson (SIAM
 * J. Numer. Anal. 17, 1980; from memory) in the harmonic-mean form of Fritsch and Butland, so that it never swings beyond its points.
 */
export function monotoneCurve(points: readonly Point[]): MonotoneCurve {
  const slopes = slopesOf(points)
  const piece = (i: number, x: number) => {
    const [a, b] = [points[i] as Point, points[i + 1] as Point]
    const width = b.x - a.x
    const t = (x - a.x) / width
    const [da, db] = [(slopes[i] as number) * width, (slopes[i + 1] as number) * width]
    return (1 + 2 * t) * (1 - t) ** 2 * a.y + t * (1 - t) ** 2 * da + t * t * (3 - 2 * t) * b.y + t * t * (t - 1) * db
  }
  const find = (inside: (low: Point, high: Point) => boolean) => {
    for (let i = 1; i < points.length; i++) if (inside(points[i - 1] as Point, points[i] as Point)) return i - 1
    return null
  }
  return {
    at: (x) => {
      const i = find((low, high) => x >= low.x && x <= high.x)
      return i === null ? null : piece(i, x)
    },
    inverse: (y) => {
      const i = find((low, high) => y >= low.y && y <= high.y)
      if (i === null) return null
      let [low, high] = [(points[i] as Point).x, (points[i + 1] as Point).x]
      if (y === (points[i] as Point).y) return low
      for (let round = 0; round < 60; round++) {
        const middle = (low + high) / 2
        if (piece(i, middle) < y) low = middle
        else high = middle
      }
      return (low + high) / 2
    },
  }
}

function slopesOf(points: readonly Point[]): number[] {
  const rise = points
    .slice(1)
    .map((point, i) => (point.y - (points[i] as Point).y) / (point.x - (points[i] as Point).x))
  return points.map((_, i) => {
    const [before, after] = [rise[i - 1], rise[i]]
    if (before === undefined || after === undefined) return before ?? after ?? 0
    return before > 0 && after > 0 ? (2 * before * after) / (before + after) : 0
  })
}
