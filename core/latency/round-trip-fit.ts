import { leastSquares } from '../numeric/least-squares'
import { studentQuantile } from '../numeric/student'
import type { RoundTrip } from '../session'

/** A measured round trip as k buffers of N frames, c frames and t milliseconds: ms = 1000·(k·N + c)/fs + t. */
export interface RoundTripFit {
  buffers: number
  /** 0 where it cannot be told from the fixed time: `fixedMs` is then the sum of both. */
  frames: number
  fixedMs: number
  /** Standard deviation of the residuals, ms; 0 where the points are no more than the unknowns. */
  residualMs: number
  /** Whether frames and fixed time could be told apart: that takes two sample rates. */
  separable: boolean
  /** Points used, outliers left out. */
  points: number
  /** Half-widths within which all parameters lie together with 95 %; `null` where there is nothing to tell it from. */
  spreads: { buffers: number | null; frames: number | null; fixedMs: number | null }
  predict: (sampleRate: number, bufferFrames: number) => { milliseconds: number; spread: number | null }
}

export interface FitResult {
  fit: RoundTripFit | null
  /** Measurements that do not go with the others and were left out. */
  outliers: RoundTrip[]
  /** Why there is no fit, or why a constant was held. */
  remarks: string[]
}

type Column = (sampleRate: number, bufferFrames: number) => number
const BUFFERS: Column = (rate, frames) => (1000 * frames) / rate
const FRAMES: Column = (rate) => 1000 / rate
const FIXED: Column = () => 1

const SURE = 0.95

/**
 * Fits measured round trips by least squares. One rate alone cannot tell frames from fixed time: their sum is kept. One
 * point, or points that all have the same buffer time, cannot tell the buffers: their number is held at the driver's.
 * Negative constants are refused: nothing is heard before it is played.
 */
export function fitRoundTrips(measured: readonly RoundTrip[], heldBuffers: number): FitResult {
  const outliers: RoundTrip[] = []
  let points = [...measured]
  for (;;) {
    const odd = outlierOf(points, heldBuffers)
    if (!odd || outliers.length >= measured.length / 3) break
    outliers.push(odd)
    points = points.filter((each) => each !== odd)
  }
  if (points.length === 0) return { fit: null, outliers, remarks: [] }
  return { outliers, ...fitOf(points, heldBuffers) }
}

function fitOf(points: readonly RoundTrip[], heldBuffers: number): Omit<FitResult, 'outliers'> {
  const distinct = (of: (each: RoundTrip) => number) => new Set(points.map(of)).size
  const cells = distinct((each) => each.bufferFrames * 1e7 + each.sampleRate)
  if (distinct((each) => each.sampleRate) > 1 && cells > 2) {
    const full = solve(points, [BUFFERS, FRAMES, FIXED])
    if (full && full.frames >= 0 && full.fixedMs >= 0) return { fit: full, remarks: [] }
    const why = full
      ? `The fit would want ${full.frames < 0 ? 'a negative number of frames' : 'a negative fixed time'}, which cannot be; frames and fixed time are kept as one sum.`
      : 'Frames and fixed time cannot be told apart from these points; their sum is kept.'
    const sum = solve(points, [BUFFERS, FIXED])
    return checked(sum, points, heldBuffers, [why])
  }
  if (distinct((each) => each.bufferFrames / each.sampleRate) > 1) {
    return checked(solve(points, [BUFFERS, FIXED]), points, heldBuffers, [
      'One sample rate alone cannot tell frames from fixed time: their sum is kept. Measure at a second rate.',
    ])
  }
  return checked(null, points, heldBuffers, [
    `One buffer time alone cannot tell the number of buffers: it is held at the driver’s ${heldBuffers}. Measure at a second buffer size.`,
  ])
}

/** A fit with a sum, or with the buffers held, as long as it does not want a negative one. */
function checked(
  fit: RoundTripFit | null,
  points: readonly RoundTrip[],
  heldBuffers: number,
  remarks: string[],
): Omit<FitResult, 'outliers'> {
  if (fit && fit.fixedMs >= 0 && fit.buffers > 0) return { fit, remarks }
  const more = fit
    ? [
        `A line through these points would want ${fit.buffers <= 0 ? 'no buffers' : 'a negative constant'}: the buffers are held at the driver’s ${heldBuffers}.`,
      ]
    : []
  const held = solve(points, [FIXED], (rate, frames) => heldBuffers * BUFFERS(rate, frames))
  if (!held || held.fixedMs < 0) {
    return {
      fit: null,
      remarks: [
        ...remarks,
        `The measurements are shorter than their ${heldBuffers} buffers alone, which cannot be. Check the buffer size, the rate and the number of buffers.`,
      ],
    }
  }
  return { fit: { ...held, buffers: heldBuffers }, remarks: [...remarks, ...more] }
}

function solve(points: readonly RoundTrip[], columns: readonly Column[], known: Column = () => 0): RoundTripFit | null {
  const rows = points.map((each) => columns.map((column) => column(each.sampleRate, each.bufferFrames)))
  const solution = leastSquares(
    rows,
    points.map((each) => each.milliseconds - known(each.sampleRate, each.bufferFrames)),
  )
  if (!solution) return null
  const { coefficients, deviation, freedom, inverse } = solution
  const value = (column: Column) => coefficients[columns.indexOf(column)] ?? 0
  // All parameters together: each gets its share of what may go wrong (Bonferroni).
  const t = freedom > 0 ? studentQuantile(1 - (1 - SURE) / columns.length, freedom) : null
  const spread = (column: Column) => {
    const k = columns.indexOf(column)
    return t === null || deviation === null || k < 0 ? null : t * deviation * Math.sqrt(inverse[k]?.[k] ?? 0)
  }
  const single = freedom > 0 ? studentQuantile(SURE, freedom) : null
  return {
    buffers: value(BUFFERS),
    frames: value(FRAMES),
    fixedMs: value(FIXED),
    residualMs: deviation ?? 0,
    separable: columns.includes(FRAMES),
    points: points.length,
    spreads: { buffers: spread(BUFFERS), frames: spread(FRAMES), fixedMs: spread(FIXED) },
    predict: (sampleRate, bufferFrames) => {
      const row = columns.map((column) => column(sampleRate, bufferFrames))
      const milliseconds =
        known(sampleRate, bufferFrames) + row.reduce((sum, each, k) => sum + each * (coefficients[k] ?? 0), 0)
      const variance = row.reduce(
        (sum, a, i) => sum + row.reduce((inner, b, j) => inner + a * b * (inverse[i]?.[j] ?? 0), 0),
        0,
      )
      return {
        milliseconds,
        spread: single === null || deviation === null ? null : single * deviation * Math.sqrt(1 + variance),
      }
    },
  }
}

/** A measurement that is off by less than this is no outlier, ms. */
const LEAST_OFF = 0.3

/** The measurement that the others speak against: far outside what a fit without it predicts for it (99 %, for all points). */
function outlierOf(points: readonly RoundTrip[], heldBuffers: number): RoundTrip | null {
  if (points.length < 5) return null
  let worst: { point: RoundTrip; by: number } | null = null
  for (const point of points) {
    const { fit } = fitOf(
      points.filter((each) => each !== point),
      heldBuffers,
    )
    if (!fit || fit.points < 4) continue
    const { milliseconds, spread } = fit.predict(point.sampleRate, point.bufferFrames)
    const off = Math.abs(point.milliseconds - milliseconds)
    const by = off / Math.max(2 * (spread ?? Infinity), LEAST_OFF)
    if (by > 1 && by > (worst?.by ?? 0)) worst = { point, by }
  }
  return worst?.point ?? null
}
