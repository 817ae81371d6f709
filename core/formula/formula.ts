/** What a formula is checked against: figures that the product has to give, or a test that does it at length. */
export type FormulaCheck =
  | { readonly says: string; readonly gives: readonly number[]; readonly within: number }
  | { readonly says: string; readonly test: string; readonly named: string }

/** One formula of the trade as it is used here. It lives here alone: docs/formulas.md and the tests are made from it. */
export interface Formula {
  readonly id: string
  readonly quantity: string
  /** In a line of text, with its conditions. */
  readonly statement: string
  /** The same as an equation, in TeX. */
  readonly tex?: string
  /** A standard, a handbook, arithmetic; or that there is none. */
  readonly source: string
  readonly check: FormulaCheck
}

/** The formulas of one subject, with what has to be said about all of them. */
export interface FormulaGroup {
  readonly title: string
  readonly formulas: readonly Formula[]
  readonly notes: string
}
