import { z } from '../z'
import { fields, measurements, numbers } from '../field'
import { id } from '../text'
import { common, inputField, outputField, plugs } from './common'

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
