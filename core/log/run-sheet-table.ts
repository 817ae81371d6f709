import type { Session } from '../session'
import { sectionsOf } from '../soundcheck/sections'
import type { Step } from '../soundcheck/step'
import type { Cell, Table } from './sheets'

const DONE = { done: 'yes', open: '', again: 'again' } as const
const tenth = (value: number) => Number(value.toFixed(1))

/** The steps of a soundcheck, in working order: what to do, what the meter must show, and room for what it showed. */
export function runSheetTable(session: Session, steps: readonly Step[]): Table {
  let number = 0
  const row = (section: string, { state, title, detail, caution, read }: Step): Cell[] => [
    ++number,
    DONE[state],
    section,
    title,
    detail ?? '',
    caution ?? '',
    ...(read ? [tenth(read.low), tenth(read.high), read.unit, read.meter] : ['', '', '', '']),
    '',
  ]
  return [
    ['No.', 'Done', 'Section', 'Step', 'How', 'Caution', 'Expected from', 'Expected to', 'Unit', 'Meter', 'Read'],
    ...sectionsOf(session, steps).flatMap(({ title, note, steps: own }) =>
      own.map((step) => row(note === null ? title : `${title}, ${note}`, step)),
    ),
  ]
}
