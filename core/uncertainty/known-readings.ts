import { inverse } from '../numeric/matrix'
import type { Reading, Session } from '../session'
import { readingWorth } from '../session'
import { placeOf } from './figures'
import type { Effect, Linear } from './linear'
import type { Walks } from './walks'

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
}

/** No meter is read closer than that, dB. */
const CLOSEST = 0.01

/** Where in a strip’s numbers the figure stands that a reading is of, and the level that its meter would show as things are set. */
export function readAt(
  walks: Walks,
  { strip, stage, reads, unit }: Pick<Reading, 'strip' | 'stage' | 'reads' | 'unit'>,
): { at: number; now: number } | null {
  if (!walks.hasStrip(strip)) return null
  const point = walks.walkOf(strip).points.findIndex((each) => each.stage === stage)
  const scale = point < 0 ? null : walks.meterAt(strip, point, { reads, unit })
  if (!scale) return null
  const at = placeOf(point, scale.figure)
  return { at, now: (walks.numbersAt(strip)[at] as number) - scale.zero }
}

/** The worth of a reading: its own, or what its kind is worth. */
export const worthOf = ({ reads, spread }: Pick<Reading, 'reads' | 'spread'>): number =>
  Math.max(CLOSEST, spread ?? readingWorth[reads])

/** A session’s reading as far as it tells of levels; `null` where there is no such meter. */
export function knownReading(walks: Walks, linear: ReadonlyMap<string, Linear>, reading: Reading): KnownReading | null {
  const place = readAt(walks, reading)
  const own = linear.get(reading.strip)
  if (!place || !own) return null
  return {
    id: reading.id,
    slopes: slopesOf(own.effects, place.at),
    u: worthOf(reading),
    // What was kept is in the session’s values already.
    difference: reading.kept ? 0 : reading.value - (reading.expected ?? place.now),
  }
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
  static of(session: Session, walks: Walks, linear: ReadonlyMap<string, Linear>): KnownReadings {
    return new KnownReadings(
      (session.soundcheck?.readings ?? []).flatMap((reading) => knownReading(walks, linear, reading) ?? []),
    )
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
