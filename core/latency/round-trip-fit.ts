import { leastSquares } from '../numeric/least-squares'
import { studentQuantile } from '../numeric/laws'
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
  /** `spread`: half-width of 95 %; `u`: a standard uncertainty of which 1.96 hold 95 % too, however few the points, ms. */
  predict: (
    sampleRate: number,
    bufferFrames: number,
  ) => { milliseconds: number; spread: number | null; u: number | null }
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
/** What of a normal law holds as much, in standard deviations. */
const NORMAL = 1.96

/**
 * Fits measured round trips by least squares. One rate alone cannot tell frames from fixed time: their sum is kept. One
 * buffer size alone cannot tell buffers from frames: the buffers are held at a whole or half number. Nothing is negative:
 * where the fixed time would be, buffers and frames are fitted again without it. What could not be told is in the spread
 * of the predictions.
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

type Fitted = Omit<FitResult, 'outliers'>

function fitOf(points: readonly RoundTrip[], heldBuffers: number): Fitted {
  const distinct = (of: (each: RoundTrip) => number) => new Set(points.map(of)).size
  const rates = distinct((each) => each.sampleRate)
  const sizes = distinct((each) => each.bufferFrames)
  const cells = distinct((each) => each.bufferFrames * 1e7 + each.sampleRate)
  if (rates > 1 && sizes > 1 && cells > 2) {
    const parts = threeParts(points)
    if (parts) return parts
  }
  if (sizes === 1 && rates > 1) return oneSize(points, heldBuffers)
  if (distinct((each) => each.bufferFrames / each.sampleRate) > 1) {
    const why =
      rates === 1
        ? 'One sample rate alone cannot tell frames from fixed time: their sum is kept. Measure at a second rate.'
        : 'Two cells cannot tell frames from fixed time: their sum is kept. Measure a third cell.'
    return sumFit(points, heldBuffers, [why])
  }
  return buffersHeld(points, heldBuffers, [
    `One buffer time alone cannot tell the number of buffers: it is held at the driver’s ${heldBuffers}. Measure at a second buffer size.`,
  ])
}

/** Buffers, frames and fixed time; what would be negative is none, and the others are fitted again without it. */
function threeParts(points: readonly RoundTrip[]): Fitted | null {
  const full = solve(points, [BUFFERS, FRAMES, FIXED])
  if (!full || full.buffers <= 0) return null
  if (full.frames >= 0 && full.fixedMs >= 0) return { fit: full, remarks: [] }
  const without = full.fixedMs < 0 ? 'fixed time' : 'frames'
  const again = solve(points, full.fixedMs < 0 ? [BUFFERS, FRAMES] : [BUFFERS, FIXED])
  if (!again || again.buffers <= 0 || again.frames < 0 || again.fixedMs < 0) return null
  const words = full.fixedMs < 0 ? 'a negative fixed time' : 'a negative number of frames'
  return {
    fit: { ...again, separable: true },
    remarks: [`The fit would want ${words}, which cannot be: it is fitted again without any ${without}.`],
  }
}

/**
 * One buffer size at several rates: buffers and frames grow alike. Of what they are together the buffers are the
 * driver's, or the whole or half number under it where that is less; the rest are frames.
 */
function oneSize(points: readonly RoundTrip[], heldBuffers: number): Fitted {
  const together = solve(points, [BUFFERS, FIXED])
  const whole = together ? Math.floor(2 * together.buffers) / 2 : heldBuffers
  const buffers = Math.max(0.5, Math.min(heldBuffers, whole))
  const why = `One buffer size alone cannot tell buffers from frames: ${buffers} buffers are assumed. Measure at a second size.`
  const size = points[0]?.bufferFrames ?? 0
  const most = together?.buffers ?? buffers
  // Were the frames buffers too, another size would differ by as much.
  const unknown: Column = (rate, frames) => (1000 * Math.max(0, most - buffers) * Math.abs(frames - size)) / rate
  const held = solve(points, [FRAMES, FIXED], { buffers, unknown })
  if (held && held.frames >= 0 && held.fixedMs >= 0) return { fit: held, remarks: [why] }
  const only = held && held.fixedMs < 0 ? solve(points, [FRAMES], { buffers, unknown }) : null
  if (only && only.frames >= 0) return { fit: only, remarks: [why] }
  return buffersHeld(points, buffers, [why])
}

/** Buffers, and frames and fixed time as one sum. */
function sumFit(points: readonly RoundTrip[], heldBuffers: number, remarks: string[]): Fitted {
  const fit = solve(points, [BUFFERS, FIXED], { unknown: splitOf(points) })
  if (fit && fit.fixedMs >= 0 && fit.buffers > 0) return { fit, remarks }
  const more = fit
    ? [
        `A line through these points would want ${fit.buffers <= 0 ? 'no buffers' : 'a negative constant'}: the buffers are held at the driver’s ${heldBuffers}.`,
      ]
    : []
  return buffersHeld(points, heldBuffers, [...remarks, ...more])
}

function buffersHeld(points: readonly RoundTrip[], buffers: number, remarks: string[]): Fitted {
  const fit = solve(points, [FIXED], { buffers, unknown: splitOf(points) })
  if (fit && fit.fixedMs >= 0) return { fit, remarks }
  const short = `The measurements are shorter than their ${buffers} buffers alone, which cannot be. Check the buffer size, the rate and the number of buffers.`
  return { fit: null, remarks: [...remarks, short] }
}

/** What a constant of one millisecond may be off at another rate: all of it could be frames. */
const splitOf = (points: readonly RoundTrip[]) => {
  const rate = points.reduce((sum, each) => sum + each.sampleRate, 0) / points.length
  return (sampleRate: number, _frames: number, constant: number) => constant * Math.abs(rate / sampleRate - 1)
}

/** What is held rather than fitted, and what a prediction may be off because of it. */
interface Held {
  buffers?: number
  unknown?: (sampleRate: number, bufferFrames: number, constant: number) => number
}

function solve(points: readonly RoundTrip[], columns: readonly Column[], held: Held = {}): RoundTripFit | null {
  const known: Column = (rate, frames) => (held.buffers ?? 0) * BUFFERS(rate, frames)
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
  const fixedMs = value(FIXED)
  return {
    buffers: held.buffers ?? value(BUFFERS),
    frames: value(FRAMES),
    fixedMs,
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
      const scatter = single === null || deviation === null ? null : single * deviation * Math.sqrt(1 + variance)
      const unknown = held.unknown?.(sampleRate, bufferFrames, fixedMs) ?? 0
      const isKnown = scatter !== null || unknown > 0
      return {
        milliseconds,
        spread: isKnown ? (scatter ?? 0) + unknown : null,
        u: isKnown ? Math.hypot((scatter ?? 0) / NORMAL, unknown / Math.sqrt(3)) : null,
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
