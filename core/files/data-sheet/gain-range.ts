import { formatShort } from '../../units'
import type { Figure } from './figures'
import { rangeIn } from './figures'
import type { Named } from './named'
import { asPrinted } from './named'
import { printedQuantity } from './printed-quantity'
import { refusal } from './refusal'
import type { Reading } from './sheet-figure'
import type { SheetTarget } from './targets'

/**
 * “Gain 10–60 dB” by its ends, “gain range 56 dB” by its width from the lowest gain on; numbers that are neither are left.
 */
export function gainRange(named: Named, figures: readonly Figure[], { fields, gainMin }: SheetTarget): Reading[] {
  const field = fields.gainMax
  if (!field) return []
  const read = (key: string, figure: Figure, from: number, notes: string[]): Reading[] => {
    const decibels = printedQuantity(figure.text, 'dB')
    if (typeof decibels !== 'number') return []
    const value = from + decibels
    const refused = refusal(key, fields[key] ?? field, value, null, {})
    return [
      {
        key,
        value,
        printed: asPrinted(named, figure),
        notes,
        beside: {},
        ...(refused !== null && { refused }),
        standing: 0,
      },
    ]
  }
  const range = rangeIn(named.text, figures)
  if (range) return [...read('gainMin', range[0], 0, []), ...read('gainMax', range[1], 0, [])]
  const [width, another] = figures.filter(({ isTolerance, isCondition }) => !isTolerance && !isCondition)
  if (!width || another) return []
  return read(
    'gainMax',
    width,
    gainMin,
    gainMin === 0 ? [] : [`Told by its width: from ${formatShort(gainMin)} dB on.`],
  )
}
