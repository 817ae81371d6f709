import type { StatedTolerance } from '../../model'
import type { NumberField } from '../../model/field'
import type { Figure } from './figures'
import { figuresIn } from './figures'
import type { Named } from './named'
import { printedQuantity } from './printed-quantity'

/** What is off by more is no tolerance. */
const MOST_TOLERANCE = 1000

/** What is printed behind “±” of a figure. */
export function toleranceOf({ text }: Named, figure: Figure, field: NumberField): StatedTolerance | undefined {
  const next = figuresIn(text).find(({ start }) => start >= figure.end)
  if (!next?.isTolerance) return undefined
  const percent = /^([\d.,]+) ?%$/.exec(next.text)
  if (percent) {
    const share = printedQuantity(percent[1] ?? '', '%')
    return typeof share === 'number' && share <= 100 ? { value: share, unit: '%' } : undefined
  }
  const isDb = /db/.test(next.text)
  const half = printedQuantity(next.text, isDb ? 'dB' : field.unit)
  if (typeof half !== 'number' || half > MOST_TOLERANCE) return undefined
  return isDb && !/^dB/.test(field.unit) ? { value: half, unit: 'dB' } : half
}
