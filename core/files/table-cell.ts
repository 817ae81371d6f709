/** A number as a table may hold it, with a hyphen or a minus sign. */
const NUMBER = /^[+\-−]?\d+(\.\d+)?(e[+-]?\d+)?$/i

/** What a spreadsheet may take for a formula, also behind blanks, and a control character at the beginning. */
// eslint-disable-next-line no-control-regex -- control characters are what is looked for
const FORMULA = /^\s*[=+\-−@]|^[\u0000-\u001f\u007f]/

/**
 * A cell of a table for a spreadsheet: a text that would be taken for a formula gets an apostrophe before it, and so does one that
 * begins with an apostrophe, so that reading takes exactly one away. A number stays one.
 */
export const guardedCell = (cell: string): string =>
  cell.startsWith("'") || (FORMULA.test(cell) && !NUMBER.test(cell)) ? `'${cell}` : cell

export const unguardedCell = (cell: string): string => (cell.startsWith("'") ? cell.slice(1) : cell)

/** A text as Markdown shows it: what would be marked up, linked or end the cell of a table is escaped. */
export const markdownText = (text: string): string =>
  text.replace(/[\\`*_[\]<>|~&]/g, '\\$&').replace(/\s*[\r\n]+\s*/g, ' ')
