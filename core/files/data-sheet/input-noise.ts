import { formatShort } from '../../units'
import type { Weighting } from './conditions'
import { figuresIn } from './figures'
import { printedQuantity } from './printed-quantity'

/** What belongs to an EIN: the resistor at the input, and the weighting. */
export function einBeside(conditions: string, weighting: Weighting): Record<string, number | string> {
  const source = figuresIn(conditions)
    .map(({ text }) => (/ω|ohm|r$|k$/.test(text) ? printedQuantity(text, 'Ω') : null))
    .find((value): value is number => typeof value === 'number')
  const ohm = source ?? (/short|kurzgeschl|court-?circuit|cortocircuit/.test(conditions) ? 0 : undefined)
  return {
    ...(ohm !== undefined && { einSource: ohm }),
    ...((weighting === 'A' || weighting === 'Z') && { einWeighting: weighting }),
  }
}

/** The same in words. */
export function einWords({ einSource, einWeighting }: Readonly<Record<string, number | string>>): string[] {
  const source =
    einSource === undefined ? [] : [einSource === 0 ? 'input shorted' : `${formatShort(Number(einSource))} Ω source`]
  const weighting = einWeighting === undefined ? [] : [einWeighting === 'A' ? 'A-weighted' : 'unweighted']
  const words = [...source, ...weighting]
  return words.length === 0 ? [] : [`${words.join(', ')}.`]
}
