import type { MeasuredFigure, MeasuredSheet } from '../files'
import { formatDecimal } from '../units'
import { markText } from './figures/gain'

/** A figure as it is written: value, ± of twice the standard uncertainty, unit. */
export const figureText = ({
  value,
  u,
  digits,
  unit,
}: Pick<MeasuredFigure, 'value' | 'u' | 'digits' | 'unit'>): string =>
  `${formatDecimal(value, digits)} ± ${formatDecimal(2 * u, digits)} ${unit}`

/** The sheet as rows of text, for a spreadsheet or as Markdown: figures, then the marks of the gain, then the response. */
export function sheetTable(sheet: MeasuredSheet): string[][] {
  const number = (value: number | null, digits: number) => (value === null ? '' : value.toFixed(digits))
  return [
    ['Group', 'Figure', 'Measured', '±', 'Unit', 'Data sheet', 'What it means', 'Method', 'Date'],
    ...sheet.figures.map((each) => [
      each.group,
      each.name,
      number(each.value, each.digits),
      number(2 * each.u, each.digits),
      each.unit,
      number(each.printed, each.digits),
      each.doubt ?? each.judgement,
      each.method,
      sheet.on,
    ]),
    ...sheet.response.map(({ frequency, level }) => [
      'Response',
      `At ${frequency} Hz`,
      level.toFixed(2),
      '0.04',
      'dB',
      '',
      'Against 1 kHz',
      '31 tones at once',
      sheet.on,
    ]),
    ...sheet.marks.map((mark) => [
      'Gain',
      `Mark, ${markText(mark)}`,
      mark.gain.toFixed(2),
      (2 * mark.u).toFixed(2),
      'dB',
      '',
      mark.noise === null ? '' : `Noise ${mark.noise.toFixed(1)} dBFS(A)`,
      '',
      sheet.on,
    ]),
  ]
}

/** One figure of two sheets. */
export interface SheetPair {
  first: MeasuredFigure | null
  second: MeasuredFigure | null
  /** Second less first; `null` where one is missing. */
  by: number | null
  /** Whether it is more than both may be off. */
  differs: boolean
}

/** Two units side by side, figure by figure, in the order of the first sheet. */
export function sheetsBeside(first: MeasuredSheet, second: MeasuredSheet): SheetPair[] {
  const ids = [...new Set([...first.figures, ...second.figures].map(({ id }) => id))]
  return ids.map((id) => {
    const [a, b] = [first, second].map(({ figures }) => figures.find((each) => each.id === id) ?? null) as [
      MeasuredFigure | null,
      MeasuredFigure | null,
    ]
    const by = a && b ? b.value - a.value : null
    return {
      first: a,
      second: b,
      by,
      differs: a !== null && b !== null && Math.abs(b.value - a.value) > 2 * Math.hypot(a.u, b.u),
    }
  })
}
