import { formatShort } from '../../units'
import { conditionsOf, weightingOf } from './conditions'
import type { Figure } from './figures'
import type { Named } from './named'
import { asPrinted } from './named'
import { printedQuantity } from './printed-quantity'
import { refusal } from './refusal'
import type { Reading } from './sheet-figure'
import type { SheetTarget } from './targets'

/** The level that a microphone’s signal-to-noise ratio is stated at: 1 Pa. */
const ONE_PASCAL = 94

/** A microphone’s signal-to-noise ratio as its self-noise. */
export function signalToNoise(named: Named, figures: readonly Figure[], { fields }: SheetTarget): Reading[] {
  const field = fields.selfNoise
  const figure = figures.find(({ text }) => /db|^[\d.,]+$/.test(text))
  const ratio = figure && printedQuantity(figure.text, 'dB')
  if (!field || !figure || typeof ratio !== 'number') return []
  const weighting = weightingOf(conditionsOf(named, figure) + figure.text)
  const value = Math.round((ONE_PASCAL - ratio) * 100) / 100
  const refused = refusal('selfNoise', field, value, weighting, {})
  return [
    {
      key: 'selfNoise',
      value,
      printed: asPrinted(named, figure),
      notes: [`94 dB SPL less a signal-to-noise ratio of ${formatShort(ratio)} dB.`],
      beside: {},
      ...(refused !== null && { refused }),
      standing: weighting === 'A' ? 1 : 0,
    },
  ]
}
