import type { Answers, Question, QuestionKind } from '../measure/question'
import type { AnalogueInput, AudioInterface, InterfaceOutput, GearOf } from '../gear'
import type { FieldTable } from '../model'
import type { Session } from '../session'
import type { Signal } from '../signals/signal'
import type { Take } from '../simulated/record'
import type { SimulatedInterface } from '../simulated/simulated-interface'

/** What stands on the bench. */
export interface Bench {
  session: Session
  unit: AudioInterface
  input: AnalogueInput
  /** Another input, where two are compared. */
  second: AnalogueInput | null
  output: InterfaceOutput | null
  /** The microphone of the strip that is looked at, with its source and the way it is set. */
  voice: {
    source: GearOf<'sound-source'>
    distance: number
    microphone: GearOf<'microphone'>
    gain: number
    pad: number
  } | null
}

/** Numbers that were typed, by the names of their fields. */
export type Typed = Readonly<Record<string, number | undefined>>

/** What a question finds, where it finds something. */
export type Found<K extends QuestionKind> =
  Extract<Answers[K], { ok: true }> extends infer A
    ? A extends { found: infer T }
      ? T
      : A extends { report: infer R }
        ? R
        : never
    : never

/** One result that the figures are made from: of a recording, a stretch of one, or a reading. */
export interface Row<T = unknown> {
  /** The file, or what was read. */
  name: string
  /** What was typed for it. */
  typed: Typed
  found: T
  sampleRate: number
  /** The simulated interface that it was made on. */
  simulated: SimulatedInterface | null
  /** What the reader of the file had to say: cut short, left out, taken as silence. */
  remarks?: readonly string[]
}

/** One figure with everything that is known of it. */
export interface Figure {
  name: string
  unit: string
  /** Decimals that it is worth. */
  digits: number
  value: number
  /** Half the range of repeats, or the scatter within the one recording; `null` where there is nothing to tell it from. */
  spread: number | null
  printed: number | null
  /** Of the simulated interface. */
  truth: number | null
  /** Against the printed value, in words. */
  judgement: string
}
export interface Remark {
  severity: 'stop' | 'caution' | 'note'
  text: string
}
export interface DetailTable {
  title: string
  head: readonly string[]
  rows: readonly (readonly string[])[]
}

/** How a result is kept: what it is called in the history, where it goes, and the session with it. */
export interface Keep {
  label: string
  where: string
  apply: (session: Session, day: string) => Session
}
export interface Outcome {
  figures: Figure[]
  remarks: Remark[]
  tables: DetailTable[]
  /** `null` where the result is not to be kept; a remark says why. */
  keep: Keep | null
}

/** What the session holds of a measurement that was done before. */
export interface Known {
  words: string
  on: string | undefined
  method: string | undefined
}

/** What is done by the engineer, in order. */
export interface Guide {
  cautions: string[]
  connect: string[]
  set: string[]
}

/** A recording that the simulated interface makes, with what would be typed for it; or a reading of its multimeter. */
export type SimulatedTrial = { take: Take; typed: Typed } | { reading: Typed }

/**
 * A way of measuring something, as data: the screen that shows one shows all. `K` is the question that its recordings are
 * asked; a procedure without one takes readings that are typed.
 */
export interface Procedure<K extends QuestionKind = QuestionKind> {
  id: string
  title: string
  purpose: string
  /** What has to stand on the bench, and is chosen at the head of the page; the voice is that of the selected strip. */
  needs: readonly ('input' | 'output' | 'second' | 'voice')[]
  guide: (bench: Bench, typed: Typed) => Guide
  signal: (bench: Bench, typed: Typed) => Signal | null
  /** Typed once for all recordings. */
  settings: FieldTable
  initial: (bench: Bench) => Typed
  /** Typed for each row, with what it begins with. */
  each: FieldTable
  initialEach: (bench: Bench, typed: Typed, row: number) => Typed
  /** The signal that was played may come in a file of its own: what is then to be begun with. */
  playedApart?: Typed
  question: ((typed: Typed) => Extract<Question, { kind: K }>) | null
  /** The rows that one recording gives. */
  rows: (found: Found<K>) => unknown[]
  /** What a row found, in a few words. */
  summary: (found: never, typed: Typed) => string
  outcome: (bench: Bench, typed: Typed, rows: Row[]) => Outcome
  simulated: (bench: Bench, typed: Typed, simulated: SimulatedInterface) => SimulatedTrial[]
  known: (bench: Bench) => Known | null
}

export const EMPTY: Outcome = { figures: [], remarks: [], tables: [], keep: null }

/** The rows that an answer gives. A procedure is only ever given answers to its own question. */
export const rowsOf = (procedure: Procedure, answer: object): unknown[] =>
  (procedure.rows as (found: object) => unknown[])(answer)

/** What a row found, in a few words; the row is one of this procedure's. */
export const summaryOf = (procedure: Procedure, row: Row): string =>
  (procedure.summary as (found: unknown, typed: Typed) => string)(row.found, row.typed)
