import type { SectionModel } from './section-model'
import type { Place } from './section-curves'
import { between, closed, curve } from './section-curves'

/** Ends of the ruler that all small sections share, dB under the ceiling. */
export const MINI = { top: 6, bottom: -110 } as const

/** A small section, without lettering: to be compared with the others on the same ruler. */
export interface MiniSection {
  ceiling: string
  surge: string
  body: string
  floor: string
  edge: string
  /** The line of the peaks. */
  peak: string
  /** The target’s window as a bracket at the recorder’s edge; empty without one. */
  window: string
}

/** Where a column’s level stands still, in columns. */
const PLATEAU = { from: 0.2, to: 0.8 }

export function drawMini({ columns, window }: SectionModel, width: number, height: number): MiniSection {
  const wide = width / Math.max(1, columns.length)
  const y = (level: number) =>
    ((MINI.top - Math.max(MINI.bottom, Math.min(MINI.top, level))) * height) / (MINI.top - MINI.bottom)
  const run = (of: (column: SectionModel['columns'][number]) => number | null): Place[] =>
    columns.flatMap((column, i) => {
      const level = of(column)
      if (level === null) return []
      const [from, to] = [i === 0 ? 0 : i + PLATEAU.from, i === columns.length - 1 ? i + 1 : i + PLATEAU.to]
      return [
        { x: from * wide, y: y(level) },
        { x: to * wide, y: y(level) },
      ]
    })
  const [surge, peak, average] = [run((each) => each.surge), run((each) => each.peak), run((each) => each.average)]
  const ceiling = run((each) => each.ceiling)
  return {
    ceiling: closed(ceiling, 0),
    surge: between(surge, peak),
    body: between(peak, average),
    floor: closed(
      run((each) => each.noise),
      height,
    ),
    edge: curve(ceiling),
    peak: curve(peak),
    window: window ? bracket(width, y(window.high), y(window.low)) : '',
  }
}

const bracket = (x: number, top: number, bottom: number) => `M${x - 5} ${top}H${x - 1}V${bottom}H${x - 5}`
