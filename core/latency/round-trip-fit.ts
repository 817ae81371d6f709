import { leastSquares } from '../numeric/least-squares'
import { studentQuantile } from '../numeric/laws'
import type { RoundTrip } from '../model'
import { formatShort } from '../units'

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
 * Fits measured round trips by least squares over the numbers of buffers that there can be: whole and half ones from 2 upwards, frames
 * and fixed time never negative. All numbers that fit within the readings’ spread count, and a prediction covers them. One rate alone
 * cannot separate frames from fixed time: their sum is kept. One reading leaves 2 ± 1 buffers.
 * Example: 48 kHz/32 3.708 ms and 44.1 kHz/64 5.443 ms: 2 buffers, 90 frames, 0.5 ms; 1,024 at 48 kHz 45.04 ms.
 * @param heldBuffers what the driver says that it holds, both ways together
 */
export function fitRoundTrips(measured: readonly RoundTrip[], heldBuffers: number): FitResult {
  const outliers: RoundTrip[] = []
  let points = measured.slice(-MOST_FITTED)
  const given = points.length
  for (;;) {
    const odd = outlierOf(points, heldBuffers)
    if (!odd || outliers.length >= given / 3) break
    outliers.push(odd)
    points = points.filter((each) => each !== odd)
  }
  if (points.length === 0) return { fit: null, outliers, remarks: [] }
  const fitted = fitOf(points, heldBuffers)
  const remarks = measured.length > given ? [`The fit uses the last ${MOST_FITTED} readings.`] : []
  return { outliers, ...fitted, remarks: [...remarks, ...fitted.remarks] }
}

/** Readings that are fitted: each is tried as an outlier against all others. */
const MOST_FITTED = 40

type Fitted = Omit<FitResult, 'outliers'>

/** The numbers of buffers that a driver can hold, both ways together: whole and half numbers. */
const FEWEST = 2
const GRID = Array.from({ length: 29 }, (_, i) => FEWEST + i / 2)

/** A loopback is not read closer than about a frame, ms (common practice, no source). */
const CLOSEST = 0.02

/** Within what 95 % of readings lie of a fit with one parameter more: the chi-square law with one degree of freedom. */
const CHI_SQUARE = 3.84

function fitOf(points: readonly RoundTrip[], heldBuffers: number): Fitted {
  const distinct = (of: (each: RoundTrip) => number) => new Set(points.map(of)).size
  const rates = distinct((each) => each.sampleRate)
  const times = distinct((each) => each.bufferFrames / each.sampleRate)
  if (times === 1 && rates === 1) return oneTime(points, heldBuffers)
  const candidates = gridFor(points).flatMap((buffers) => restOf(points, buffers, rates > 1) ?? [])
  const least = Math.min(...candidates.map(({ squares }) => squares))
  const freedom = Math.max(1, points.length - (rates > 1 ? 3 : 2))
  const variance = Math.max(CLOSEST ** 2, least / freedom)
  const fitting = candidates.filter(({ squares }) => squares <= least + CHI_SQUARE * variance).map(({ fit }) => fit)
  if (fitting.length === 0) return { fit: null, remarks: [tooShort(FEWEST)] }
  return {
    fit: covering(fitting, heldBuffers),
    remarks: [
      ...(rates === 1
        ? [
            'Readings at one sample rate cannot separate frames from fixed time: their sum is kept. Measure at a second rate.',
          ]
        : []),
      ...(fitting.length > 1
        ? [
            `${formatShort(fitting[0]?.buffers ?? 0, 1)} to ${formatShort(fitting.at(-1)?.buffers ?? 0, 1)} buffers all fit these readings, and the predictions cover them. Measure at another buffer size.`,
          ]
        : []),
    ],
  }
}

/** The numbers of buffers worth trying: those near a free fit, where the readings allow one. */
function gridFor(points: readonly RoundTrip[]): readonly number[] {
  const free = solve(points, [BUFFERS, FRAMES, FIXED])
  const near = free ? GRID.filter((each) => Math.abs(each - free.buffers) <= NEARBY) : GRID
  return near.length > 0 ? near : GRID
}
const NEARBY = 1.5

const tooShort = (buffers: number) =>
  `The readings are shorter than ${formatShort(buffers, 1)} buffers alone, which is not possible. Check the buffer size, the rate and the number of buffers.`

/** Of readings of one cell the number of buffers is not known: one more or one less is as likely, and the rest follows. */
function oneTime(points: readonly RoundTrip[], buffers: number): Fitted {
  const [first] = points
  const own = first ? BUFFERS(first.sampleRate, first.bufferFrames) : 0
  const split = splitOf(points)
  const fit = solve(points, [FIXED], {
    buffers,
    unknown: (rate, frames, constant) => Math.abs(BUFFERS(rate, frames) - own) + split(rate, frames, constant),
  })
  if (!fit || fit.fixedMs < 0) return { fit: null, remarks: [tooShort(buffers)] }
  return {
    fit: { ...fit, spreads: { ...fit.spreads, buffers: 1 } },
    remarks: [
      `One reading cannot show the number of buffers: ${formatShort(buffers, 1)} ± 1 are assumed. Measure at a second buffer size.`,
    ],
  }
}

/** What is left of readings beside so many buffers, none of it negative; `null` where they are shorter than those. */
function restOf(
  points: readonly RoundTrip[],
  buffers: number,
  separable: boolean,
): { fit: RoundTripFit; squares: number } | null {
  const held = { buffers, ...(!separable && { unknown: splitOf(points) }) }
  const ways: (readonly Column[])[] = separable ? [[FRAMES, FIXED], [FRAMES], [FIXED]] : [[FIXED]]
  const fits = ways
    .flatMap((columns) => solve(points, columns, held) ?? [])
    .filter((fit) => fit.frames >= 0 && fit.fixedMs >= 0)
    .map((fit) => ({ fit: { ...fit, separable }, squares: squaresOf(points, fit) }))
  return fits.length === 0 ? null : fits.reduce((best, each) => (each.squares < best.squares ? each : best))
}

const squaresOf = (points: readonly RoundTrip[], fit: RoundTripFit): number =>
  points.reduce(
    (sum, each) => sum + (each.milliseconds - fit.predict(each.sampleRate, each.bufferFrames).milliseconds) ** 2,
    0,
  )

/** One fit that stands for all that fit: its predictions lie in their middle and cover them. */
function covering(fits: readonly RoundTripFit[], heldBuffers: number): RoundTripFit {
  const middle = fits[Math.floor((fits.length - 1) / 2)] as RoundTripFit
  const named = fits.find(({ buffers }) => buffers === heldBuffers) ?? middle
  const half = ((fits.at(-1)?.buffers ?? 0) - (fits[0]?.buffers ?? 0)) / 2
  return {
    ...named,
    spreads: { ...named.spreads, buffers: half },
    predict: (sampleRate, bufferFrames) => {
      const all = fits.map((fit) => fit.predict(sampleRate, bufferFrames))
      const values = all.map(({ milliseconds }) => milliseconds)
      const [low, high] = [Math.min(...values), Math.max(...values)]
      const apart = (high - low) / 2
      const scatter = Math.max(...all.map(({ spread }) => spread ?? 2 * CLOSEST))
      const u = Math.max(...all.map((each) => each.u ?? CLOSEST))
      return { milliseconds: (low + high) / 2, spread: apart + scatter, u: Math.hypot(u, apart / Math.sqrt(3)) }
    },
  }
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
