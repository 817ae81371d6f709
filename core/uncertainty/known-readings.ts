import { inverse } from '../numeric/matrix'
import type { Reading, Session } from '../session'
import { readingWorth } from '../session'
import type { Effect, Linear } from './linear'
import type { PointFigure, Walks } from './walks'
import { FIGURES } from './walks'

/** What of a point a reading is a reading of. */
const READS: Record<Reading['reads'], PointFigure> = {
  peak: 'peak',
  average: 'average',
  vu: 'average',
  light: 'peak',
  pfl: 'peak',
  spl: 'average',
}

/** By how much of their standard uncertainties the inputs move a figure, by path. */
export type Slopes = ReadonlyMap<string, number>

export const slopesOf = (effects: readonly Effect[], i: number): Slopes =>
  new Map(effects.flatMap(({ input, slope }) => (slope[i] ? [[input.path, slope[i] as number] as const] : [])))

/** Where in a strip’s numbers the figure is that a meter at a stage shows; `null` where there is no such point. */
export function readAt(walks: Walks, strip: string, stage: string, reads: Reading['reads']): number | null {
  const at = walks.hasStrip(strip) ? walks.walkOf(strip).points.findIndex((point) => point.stage === stage) : -1
  return at < 0 ? null : at * FIGURES.length + FIGURES.indexOf(READS[reads])
}

/**
 * What readings tell of the inputs that they are sums of: Bayes’ rule for normal laws. A reading ties the inputs together – each may
 * still be off, but not all to the same side –, so that a figure of the same inputs is known far better than any of them.
 */
export class KnownReadings {
  private readonly rows: Slopes[] = []
  private readonly weights: number[][]

  constructor(readings: readonly { slopes: Slopes; u: number }[]) {
    this.rows = readings.map(({ slopes }) => slopes)
    const joint = readings.map((one, i) =>
      readings.map((other, k) => dot(one.slopes, other.slopes) + (i === k ? one.u ** 2 : 0)),
    )
    this.weights = joint.length === 0 ? [] : inverse(joint)
  }

  /** Those of a session’s soundcheck. */
  static of(session: Session, walks: Walks, linear: ReadonlyMap<string, Linear>): KnownReadings {
    return new KnownReadings(
      (session.soundcheck?.readings ?? []).flatMap(({ strip, stage, reads, spread }) => {
        const i = readAt(walks, strip, stage, reads)
        const own = linear.get(strip)
        const u = spread ?? readingWorth[reads]
        return i === null || !own || u === 0 ? [] : [{ slopes: slopesOf(own.effects, i), u }]
      }),
    )
  }

  get areThere(): boolean {
    return this.rows.length > 0
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
