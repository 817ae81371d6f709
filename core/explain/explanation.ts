import type { FormulaId } from '../formula'
import type { InputPlace } from '../uncertainty/input'
import type { ValueOrigin } from '../model'

/** A figure of a session that can be explained. */
export interface FigureRef {
  readonly strip: string
  readonly stage: string
  /** `average`, `peak`, …, `gain`, `ceiling`, `noise:<name>`, `direct`, `software`, `chance`. */
  readonly figure: string
}

/** One of the things that a figure is made from: a value of the session, or a figure in its turn. */
export interface Part {
  readonly name: string
  readonly value: number
  readonly unit: string
  /** What of the result it makes, where the parts add up, dB or ms. */
  readonly adds: number | null
  /** Standard uncertainty, where it is known. */
  readonly u: number | null
  /** Its unit, where that is another than the value’s: dB of a sensitivity. */
  readonly uUnit?: string | undefined
  /** Where an input is from. */
  readonly origin?: ValueOrigin | undefined
  readonly on?: string | undefined
  readonly method?: string | undefined
  readonly path?: string | undefined
  readonly place?: InputPlace | undefined
  /** Part of the result’s variance, or of its power. */
  readonly share?: number | undefined
  /** Opens in its turn. */
  readonly figure?: FigureRef | undefined
}

/** What a figure is made of, one step deep. */
export interface Explanation {
  readonly of: FigureRef
  readonly title: string
  readonly value: number
  readonly unit: string
  readonly u: number | null
  readonly interval?: { low: number; high: number } | undefined
  readonly formula: FormulaId
  readonly parts: readonly Part[]
  /** The formula with the numbers in it. */
  readonly withNumbers: string
  /** What has to be said besides. */
  readonly remarks: readonly string[]
  /** The inputs that make most of what is uncertain, the greatest first. */
  readonly doubts: readonly Part[]
}
