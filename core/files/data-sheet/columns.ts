import type { PortContext } from './contexts'
import { contextsIn } from './contexts'
import { figuresIn } from './figures'
import { plain } from './plain'

/** What a column of a table holds. */
export type Column =
  | { readonly holds: 'name' | 'unit' | 'value' | 'least' | 'most' | 'other' }
  | { readonly holds: 'port'; readonly context: PortContext }

const HEADS: readonly { pattern: RegExp; holds: 'unit' | 'value' | 'least' | 'most' | 'other' }[] = [
  { pattern: /^(?:units?|einheit|unites?|unidad)$/, holds: 'unit' },
  {
    pattern: /^(?:typ(?:ical|isch|ique|ico)?\.?|nom(?:inal)?\.?|values?|wert|valeurs?|valor|specification|figure)$/,
    holds: 'value',
  },
  { pattern: /^min(?:imum|\.)?$/, holds: 'least' },
  { pattern: /^max(?:imum|\.)?$/, holds: 'most' },
  {
    pattern: /^(?:conditions?|bedingung(?:en)?|notes?|remarks?|bemerkung|condiciones|test conditions?)$/,
    holds: 'other',
  },
]
const CHANNEL = /^(?:ch(?:annel)?|kanal|canal|in(?:put)?|eingang|entree|entrada)\.? ?\d/

function columnOf(cell: string): Column | null {
  const head = HEADS.find(({ pattern }) => pattern.test(cell))
  if (head) return { holds: head.holds }
  const context = CHANNEL.test(cell) ? { side: 'in' as const } : contextsIn(cell)[0]?.context
  return context ? { holds: 'port', context } : null
}

/** The columns that a line of heads names; `null` for any other line. */
export function columnsOf(cells: readonly string[]): Column[] | null {
  const texts = cells.map(plain)
  if (cells.length < 2 || texts.some((text) => !CHANNEL.test(text) && figuresIn(text).length > 0)) return null
  const all = texts.map(columnOf)
  // On a page nothing stands over the names.
  if (all.every((each) => each?.holds === 'port')) return [{ holds: 'name' }, ...all.flatMap((each) => each ?? [])]
  const columns = all.map((each, i) => (i === 0 ? null : each))
  if (columns.filter((each) => each !== null).length < Math.max(1, Math.min(2, cells.length - 1))) return null
  return columns.map((each, i) => each ?? { holds: i === 0 ? 'name' : 'other' })
}

/** A text of a row, and the ports of the column that it is from. */
export interface RowText {
  readonly text: string
  readonly context?: PortContext
}

/** A unit alone in its cell belongs to the number in the cell before. */
const UNIT_ALONE = /^(?:[a-zµ%]{1,3}[\w/ ().]*|[kM]?Ω|dB[\w/ ()-]*)$/
const NUMBER_ALONE = /^[+\-−–±]?\s*\d[\d.,\s]*$/

/** The texts of a row: one for each port of a table of ports, otherwise the line as it stands. */
export function rowTexts(cells: readonly string[], columns: readonly Column[] | null): RowText[] {
  if (!columns || columns.length !== cells.length) return [{ text: joined(cells) }]
  const at = (holds: Column['holds']) => cells.filter((cell, i) => columns[i]?.holds === holds && cell !== '')
  const name = cells[0] ?? ''
  const unit = at('unit').join(' ')
  const others = at('other').map((cell) => ` (${cell})`)
  const text = (value: string) =>
    `${name}\t${value}${NUMBER_ALONE.test(value) && unit ? ` ${unit}` : ''}${others.join('')}`
  const ports = cells.flatMap((cell, i): RowText[] => {
    const column = columns[i]
    return column?.holds === 'port' && /\d|[a-z]{3}/i.test(cell) ? [{ text: text(cell), context: column.context }] : []
  })
  if (ports.length > 0) return ports
  const [value = at('most')[0] ?? at('least')[0]] = at('value')
  return [{ text: value === undefined ? joined(cells) : text(value) }]
}

const joined = (cells: readonly string[]): string =>
  cells.reduce(
    (text, cell, i) =>
      i === 0 ? cell : `${text}${UNIT_ALONE.test(cell) && NUMBER_ALONE.test(cells[i - 1] ?? '') ? ' ' : '\t'}${cell}`,
    '',
  )
