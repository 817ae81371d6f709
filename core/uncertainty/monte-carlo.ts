import { seeded, seededNormal } from '../numeric/random'
import { mean, quantiles, standardDeviation } from '../numeric/statistics'
import type { UncertainInput } from './input'
import type { PerturbedEvaluations } from './perturbed-evaluations'

/** How a figure came out over many draws. */
export interface Drawn {
  readonly mean: number
  readonly u: number
  /** The middle 95 %. */
  readonly low: number
  readonly high: number
}

/** Figures wanted of each strip, by their places in its numbers. */
export type Wanted = ReadonlyMap<string, readonly number[]>

/** The most draws that are made: what JCGM 101 asks for in practice, to have the ends of 95 % to two digits. */
export const DRAWS = 20_000

/** Draws between two looks at the error; so many batches at least, to judge it by their scatter. */
const BATCH = 125
const FEWEST_BATCHES = 8

/** The error at which no more is drawn: of u as a part of it, of an end as a part of the width of the interval. */
const ENOUGH = 0.02

/** Errors that no screen shows, in the figure’s unit: u is shown doubled and to 0.1, and so are the ends. */
const SHOWN = { u: 0.025, end: 0.1 } as const

const SEED = 20_101

/** A figure's values, and what each batch of them alone would say. */
class Column {
  readonly values: number[] = []
  private readonly batches: Drawn[] = []

  endBatch(size: number): void {
    this.batches.push(summary(this.values.slice(-size)))
  }

  /** Whether the standard errors, from the scatter of the batches (JCGM 101, 7.9.4), are small enough. */
  get isEnough(): boolean {
    if (this.batches.length < FEWEST_BATCHES) return false
    const error = (of: (each: Drawn) => number) =>
      standardDeviation(this.batches.map(of)) / Math.sqrt(this.batches.length)
    const u = mean(this.batches.map((each) => each.u))
    const width = mean(this.batches.map(({ low, high }) => high - low))
    return (
      error((each) => each.u) <= Math.max(SHOWN.u, ENOUGH * u) &&
      error(({ low }) => low) <= Math.max(SHOWN.end, ENOUGH * width) &&
      error(({ high }) => high) <= Math.max(SHOWN.end, ENOUGH * width)
    )
  }
}

/**
 * Propagation of distributions (JCGM 101): every input is drawn from its law – rectangular for half widths and half ranges, normal
 * for standard deviations –, the strips are walked, and the figures are counted. Nothing is taken to be straight. One draw serves all
 * strips, and is the same for the same session.
 */
export class Draws {
  private readonly columns: ReadonlyMap<string, ReadonlyMap<number, Column>>
  private readonly inputs: readonly UncertainInput[]
  private readonly move: ReturnType<PerturbedEvaluations['mover']>
  private readonly even = seeded(SEED)
  private readonly normal = seededNormal(SEED + 1)
  private made = 0

  constructor(
    private readonly evaluations: PerturbedEvaluations,
    inputs: readonly UncertainInput[],
    wanted: Wanted,
    private readonly most = DRAWS,
  ) {
    const leading = new Set([...wanted.keys()].flatMap((strip) => [...evaluations.leadingTo(strip)]))
    this.inputs = inputs.filter(
      (input) => input.doubt.u > 0 && [...evaluations.reach(input)].some((strip) => leading.has(strip)),
    )
    this.move = evaluations.mover(this.inputs, leading, 'levels')
    this.columns = new Map(
      [...wanted].map(([strip, figures]) => [strip, new Map(figures.map((i) => [i, new Column()]))]),
    )
  }

  /** Whether every figure is known well enough, or no more is to be drawn. */
  get areEnough(): boolean {
    return (
      this.made >= this.most ||
      [...this.columns.values()].every((own) => [...own.values()].every((each) => each.isEnough))
    )
  }

  /** Makes some more draws. */
  batch(): void {
    const size = Math.max(1, Math.min(BATCH, this.most - this.made))
    for (let n = 0; n < size; n++) this.draw()
    this.made += size
    for (const own of this.columns.values()) for (const column of own.values()) column.endBatch(size)
  }

  private draw(): void {
    const moved = this.move(this.inputs.map((input) => this.z(input)))
    for (const [strip, own] of this.columns) {
      const numbers = moved.get(strip) ?? this.evaluations.numbersAt(strip)
      for (const [i, { values }] of own) values.push(numbers[i] as number)
    }
  }

  private z({ doubt }: UncertainInput): number {
    return doubt.law === 'rectangular' ? Math.sqrt(3) * (2 * this.even() - 1) : this.normal()
  }

  /** What the draws so far say. */
  of(strip: string, figure: number): Drawn | null {
    const column = this.columns.get(strip)?.get(figure)
    return column && column.values.length > 0 ? summary(column.values) : null
  }
}

function summary(values: readonly number[]): Drawn {
  const [low, high] = quantiles(values, [0.025, 0.975]) as [number, number]
  return { mean: mean(values), u: standardDeviation(values), low, high }
}
