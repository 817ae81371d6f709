import type { FormulaId } from '../formula'
import type { Ohms } from '../units'
import type { ResolvedStage } from './stage'

/** One of the things that a stage’s figure is made from. */
export interface StagePart {
  /** Where it stands in the session, so that it is told how sure it is: a figure of the box or of its socket, or a setting. */
  readonly from: 'figure' | 'setting' | null
  /** Its name there. */
  readonly key: string
  readonly name: string
  readonly value: number
  readonly unit: string
  /** What of the result it makes, where the parts add up, dB. */
  readonly adds: number | null
}

export interface StageExplanation {
  readonly formula: FormulaId
  readonly parts: readonly StagePart[]
  readonly remarks?: readonly string[]
}

/** What stands behind a stage. */
export interface Behind {
  readonly next: ResolvedStage | undefined
  /** Input impedance of the next stage. */
  readonly load: Ohms | undefined
}

/** How the figures of a kind of stage are explained, `S` being the stage joined with its gear. */
export interface ExplainedTraits<S> {
  /** What it does to a level, without what curves and connections take. */
  gain(stage: S, behind: Behind): StageExplanation
  /** Of a source: its average, and its peak where that does not follow from average and crest factor. */
  level?(stage: S, behind: Behind): StageExplanation
  /** The level at which it clips in its own unit; in numbers that is 0 dBFS. */
  ceiling?(stage: S): StageExplanation
  /** The formula of its ceiling, where it is not the usual one. */
  readonly ceilingFormula?: FormulaId
  /** The lowest gain, where the limit of its input is stated there. */
  limitStatedAt?(stage: S): number
}

export const figure = (key: string, name: string, value: number, unit: string, adds: number | null): StagePart => ({
  from: 'figure',
  key,
  name,
  value,
  unit,
  adds,
})
export const setting = (key: 'gain' | 'fader' | 'distance', name: string, value: number, unit: string, adds: number) =>
  ({ from: 'setting', key, name, value, unit, adds }) as const satisfies StagePart
/** A part that is known for certain, or told elsewhere. */
export const certain = (name: string, value: number, unit: string, adds: number): StagePart => ({
  from: null,
  key: '',
  name,
  value,
  unit,
  adds,
})
export const gainSetting = (gain: number, name = 'Gain', adds = gain): StagePart =>
  setting('gain', name, gain, 'dB', adds)

/** A source has a level, and no gain. */
export const noGain = (): StageExplanation => ({ formula: 'levels-dbfs', parts: [] })
