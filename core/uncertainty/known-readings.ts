import { normalChance } from '../numeric/laws'
import { inverse } from '../numeric/matrix'
import { standardDeviation } from '../numeric/statistics'
import type { Reading } from '../model'
import type { Session } from '../session'
import { readingWorth } from '../model'
import { placeOf } from './figures'
import type { Effect, Linear } from './linear'
import type { PerturbedEvaluations } from './perturbed-evaluations'

/** By how much of their standard uncertainties the inputs move a figure, by path. */
export type Slopes = ReadonlyMap<string, number>

export const slopesOf = (effects: readonly Effect[], i: number): Slopes =>
  new Map(effects.flatMap(({ input, slope }) => (slope[i] ? [[input.path, slope[i] as number] as const] : [])))

/** A reading as Bayes’ rule takes it: what moves it, its own standard uncertainty, and what it read beyond what was expected, dB. */
export interface KnownReading {
  readonly id: string
  readonly slopes: Slopes
  readonly u: number
  readonly difference: number
  /** Whether it says at least, or at most, so much. */
  readonly limit: Reading['limit'] | null
}

/** No meter is read closer than that, dB. */
const CLOSEST = 0.01

/** Where in a strip’s numbers the figure stands that a reading is of, and the level that its meter would show as things are set. */
export function readAt(
  evaluations: PerturbedEvaluations,
  { strip, stage, reads, unit }: Pick<Reading, 'strip' | 'stage' | 'reads' | 'unit'>,
): { at: number; now: number } | null {
  if (!evaluations.hasStrip(strip)) return null
  const point = evaluations.cascadeOf(strip).points.findIndex((each) => each.stage === stage)
  const scale = point < 0 ? null : evaluations.meterAt(strip, point, { reads, unit })
  if (!scale) return null
  const at = placeOf(point, scale.figure)
  return { at, now: (evaluations.numbersAt(strip)[at] as number) - scale.zero }
}

/** The worth of a reading: its own, or what its kind is worth. */
export const worthOf = ({ reads, spread }: Pick<Reading, 'reads' | 'spread'>): number =>
  Math.max(CLOSEST, spread ?? readingWorth[reads])

/** A session’s reading as far as it tells of levels; `null` where there is no such meter. */
export function knownReading(
  evaluations: PerturbedEvaluations,
  linear: ReadonlyMap<string, Linear>,
  reading: Reading,
): KnownReading | null {
  const place = readAt(evaluations, reading)
  const own = linear.get(reading.strip)
  if (!place || !own) return null
  return {
    id: reading.id,
    slopes: slopesOf(own.effects, place.at),
    u: worthOf(reading),
    limit: reading.limit ?? null,
    // What was kept is in the session's values already.
    difference: reading.kept ? 0 : reading.value - (reading.expected ?? place.now),
  }
}

/** A reading that far off is a fault first, dB, and in standard uncertainties (common practice, no source). */
const FAULT = { decibels: 20, z: 4 } as const

/** By how many standard uncertainties a reading lies beside what the figures alone let it show; a limit only where it is passed. */
export function besideFigures({ slopes, u, difference, limit }: KnownReading): number {
  const passed =
    limit === 'at-least' ? Math.max(0, difference) : limit === 'at-most' ? Math.min(0, difference) : difference
  return passed / Math.sqrt(dot(slopes, slopes) + u ** 2)
}

/**
 * Whether a reading is a fault first: a pad, 48 V, a wrong input, a cable. Clearing it brings the level back at once, so that nothing is
 * concluded from it.
 */
export const isFault = (reading: KnownReading): boolean => {
  const z = besideFigures(reading)
  return z !== 0 && (Math.abs(z) > FAULT.z || Math.abs(reading.difference) > FAULT.decibels)
}

/** Readings of one place are repeats: where they scatter more than their meter is worth, their spread is what each is worth. */
function withSpread(readings: readonly KnownReading[], places: readonly string[]): KnownReading[] {
  return readings.map((reading, i) => {
    const repeats = readings.filter((each, k) => places[k] === places[i] && each.limit === null)
    if (reading.limit !== null || repeats.length < 2) return reading
    return { ...reading, u: Math.max(reading.u, standardDeviation(repeats.map(({ difference }) => difference))) }
  })
}

/**
 * A reading that gives a limit, as the exact reading that leaves the same mean and variance: at a sum with expectation μ and u₀ it leaves
 * mean μ + (u₀²/s)·λ and variance u₀²·(1 − (u₀/s)²·λ(λ − α)), s² = u₀² + u², α = (L − μ)/s, λ = φ(α)/(1 − Φ(α)).
 * Example: μ −15, u₀ 3.37, at least 0 with u 0: 0.695 ± 0.670.
 * @returns `null` where the limit tells nothing
 */
function asExact(before: KnownReadings, reading: KnownReading): KnownReading | null {
  const { slopes, u, difference, limit } = reading
  const sign = limit === 'at-most' ? -1 : 1
  const prior = before.covariance(slopes, slopes)
  if (prior <= 0) return null
  const { shift, variance } = truncated(sign * (difference - before.shift(slopes)), prior, u)
  if (prior - variance < 1e-6 * prior) return null
  // A variance of its own that leaves the same: prior·r/(prior + r).
  const own = (prior * variance) / (prior - variance)
  return {
    ...reading,
    limit: null,
    u: Math.sqrt(own),
    difference: before.shift(slopes) + (sign * shift * (prior + own)) / prior,
  }
}

/** Mean and variance of what lies that far over its expectation at least. @param over L − μ, dB */
export function truncated(over: number, prior: number, u: number): { shift: number; variance: number } {
  const s = Math.sqrt(prior + u ** 2)
  const alpha = over / s
  const lambda = hazard(alpha)
  return { shift: (prior / s) * lambda, variance: prior * (1 - (prior / s ** 2) * lambda * (lambda - alpha)) }
}

/** φ(α)/(1 − Φ(α)); far out by its asymptotic α + 1/α. */
function hazard(alpha: number): number {
  const tail = normalChance(-alpha)
  return tail > 1e-12 ? Math.exp(-(alpha ** 2) / 2) / Math.sqrt(2 * Math.PI) / tail : alpha + 1 / alpha
}

/**
 * What readings tell of the inputs that they are sums of: Bayes’ rule for normal laws. A reading ties the inputs together – each may
 * still be off, but not all to the same side –, so that a figure of the same inputs is known far better than any of them.
 *
 * With rows aᵢ (what an input’s standard uncertainty moves each reading by) and S = A·Aᵀ + diag(u²): inputs shift by Aᵀ·S⁻¹·d, and
 * keep the covariance 1 − Aᵀ·S⁻¹·A.
 */
export class KnownReadings {
  private readonly rows: Slopes[] = []
  private readonly weights: number[][]
  /** S⁻¹·d: how strongly each reading pulls. */
  private readonly pulls: number[]

  constructor(readonly readings: readonly KnownReading[]) {
    this.rows = readings.map(({ slopes }) => slopes)
    const joint = readings.map((one, i) =>
      readings.map((other, k) => dot(one.slopes, other.slopes) + (i === k ? one.u ** 2 : 0)),
    )
    this.weights = joint.length === 0 ? [] : inverse(joint)
    this.pulls = this.weights.map((row) =>
      row.reduce((sum, each, k) => sum + each * (readings[k] as KnownReading).difference, 0),
    )
  }

  /** Those of a session’s soundcheck. */
  static of(session: Session, evaluations: PerturbedEvaluations, linear: ReadonlyMap<string, Linear>): KnownReadings {
    const all = (session.soundcheck?.readings ?? []).flatMap((reading) => {
      const known = knownReading(evaluations, linear, reading)
      return known && !isFault(known) ? [{ known, place: `${reading.strip} ${reading.stage} ${reading.reads}` }] : []
    })
    return KnownReadings.from(
      withSpread(
        all.map((each) => each.known),
        all.map((each) => each.place),
      ),
    )
  }

  /** Exact ones at once, then each limit by what is known then. */
  static from(readings: readonly KnownReading[]): KnownReadings {
    const exact = new KnownReadings(readings.filter(({ limit }) => limit === null))
    return readings
      .filter(({ limit }) => limit !== null)
      .reduce((before, each) => {
        const told = asExact(before, each)
        return told ? new KnownReadings([...before.readings, told]) : before
      }, exact)
  }

  get areThere(): boolean {
    return this.rows.length > 0
  }

  /** What the readings without one of them tell. */
  without = (id: string): KnownReadings => new KnownReadings(this.readings.filter((each) => each.id !== id))

  /** By how much a figure is likely off, in its unit. */
  shift(slopes: Slopes): number {
    return this.rows.reduce((sum, row, i) => sum + dot(row, slopes) * (this.pulls[i] as number), 0)
  }

  /** By how many of its standard uncertainties an input is likely off, and what of that uncertainty is left. */
  ofInput(path: string): { z: number; left: number } {
    const own = this.rows.map((row) => row.get(path) ?? 0)
    const z = own.reduce((sum, each, i) => sum + each * (this.pulls[i] as number), 0)
    const told = this.weights.reduce(
      (sum, row, i) => sum + (own[i] as number) * row.reduce((inner, each, k) => inner + each * (own[k] as number), 0),
      0,
    )
    return { z, left: Math.sqrt(Math.max(0, 1 - told)) }
  }

  /** What two figures still have in common when the readings are known: their covariance. */
  covariance(one: Slopes, other: Slopes): number {
    const [first, second] = [one, other].map((slopes) => this.rows.map((row) => dot(row, slopes))) as [
      number[],
      number[],
    ]
    const told = this.weights.reduce(
      (sum, row, i) =>
        sum + (first[i] as number) * row.reduce((inner, each, k) => inner + each * (second[k] as number), 0),
      0,
    )
    return dot(one, other) - told
  }

  /** What is left of each input’s part of a figure’s variance; their sum is the variance. */
  left(slopes: Slopes): Map<string, number> {
    const told = this.rows.map((row) => dot(row, slopes))
    const pull = this.weights.map((row) => row.reduce((sum, each, k) => sum + each * (told[k] as number), 0))
    return new Map(
      [...slopes].map(([path, slope]) => {
        const known = this.rows.reduce((sum, row, k) => sum + (row.get(path) ?? 0) * (pull[k] as number), 0)
        return [path, slope * (slope - known)]
      }),
    )
  }
}

export function dot(one: Slopes, other: Slopes): number {
  let sum = 0
  for (const [path, slope] of one) sum += slope * (other.get(path) ?? 0)
  return sum
}
