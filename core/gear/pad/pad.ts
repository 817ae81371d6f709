import { z } from '../../model/z'
import { fields, numbers } from '../../model/field'
import { measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common, inputField, outputField, plugs } from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { BEFORE_LINE, plainTraits } from '../traits'

export const padSpecs = fields({
  loss: { label: 'Loss', unit: 'dB', min: 0, max: 100, help: 'Between its matched ends.' },
  inputImpedance: inputField,
  outputImpedance: outputField,
})

/** A fixed loss in the line. */
export const pad = z.strictObject({
  id,
  kind: z.literal('pad'),
  ...common,
  plugs,
  specs: numbers(padSpecs),
  measured: measurements(padSpecs),
})
export type Pad = z.infer<typeof pad>
export const isPad = ofKind('pad')

export const padTraits: GearTraits<Pad> = {
  ...plainTraits,
  words: { title: 'Pad', name: 'a pad' },
  allFields: padSpecs,
  fields: () => padSpecs,
  feedsBus: BEFORE_LINE,
  blank: { specs: { loss: 20, inputImpedance: 10_000, outputImpedance: 150 } },
}
