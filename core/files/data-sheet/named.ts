import type { PortContext } from './contexts'
import type { SheetLine } from './sheet-line'
import type { Term } from './terms'

/** A name in a line, with the part of the line that is its own. */
export interface Named {
  /** The whole line as it is printed. */
  readonly printed: string
  /** The same in small letters without accents, letter for letter. */
  readonly text: string
  readonly term: Term
  /** The name itself. */
  readonly start: number
  readonly end: number
  /** Up to the names beside it. */
  readonly from: number
  readonly to: number
  /** What the column or the heading says of the ports. */
  readonly context: PortContext
  readonly isColumn: boolean
  readonly line: SheetLine
}

/** A part of the line as it is printed. */
export const asPrinted = ({ printed }: Named, { start, end }: { start: number; end: number }): string =>
  printed.slice(start, end).trim()
