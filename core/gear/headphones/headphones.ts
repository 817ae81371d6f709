import { z } from '../../model/z'
import { fields, numbers } from '../../model/field'
import { measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common } from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { plainTraits } from '../traits'

export const headphonesSpecs = fields({
  sensitivity: {
    label: 'Sensitivity',
    unit: 'dB/mW',
    min: 60,
    max: 140,
    help: 'Sound level at 1 mW; a figure per volt less 10 lg(1000/impedance).',
  },
  impedance: { label: 'Impedance', unit: 'Ω', min: 4, max: 2000, help: 'At 1 kHz.' },
})

/** What a performer listens with: named by a strip's monitor, never a stage of it. */
export const headphones = z.strictObject({
  id,
  kind: z.literal('headphones'),
  ...common,
  specs: numbers(headphonesSpecs),
  measured: measurements(headphonesSpecs),
})
export type Headphones = z.infer<typeof headphones>
export const isHeadphones = ofKind('headphones')

export const headphonesTraits: GearTraits<Headphones> = {
  ...plainTraits,
  words: { title: 'Headphones', name: 'a pair of headphones' },
  allFields: headphonesSpecs,
  fields: () => headphonesSpecs,
  settings: () => [],
  // They take a wire's signal and give sound: nothing in a strip stands behind that.
  domains: () => ({ takes: 'analogue', gives: 'sound' }),
  sockets: () => [],
  inStrip: false,
  blank: { specs: { sensitivity: 98, impedance: 32 } },
}
