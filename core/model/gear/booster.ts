import { z } from '../z'
import { fields, numbersAnd } from '../field'
import { measurements } from '../measurement'
import { id } from '../text'
import { common, einField, einSourceField, inputField, maxOutputField, outputField, plugs, weighting } from './common'
import type { GearTraits } from './traits'
import { plainTraits } from './traits'

export const boosterSpecs = fields({
  gain: { label: 'Gain', unit: 'dB', min: 0, max: 60, help: 'It cannot be set.' },
  ein: einField,
  einSource: einSourceField,
  inputImpedance: inputField,
  outputImpedance: outputField,
  maxOutput: maxOutputField,
})

/** An inline preamp: a fixed gain in the microphone's line, fed by phantom power and passing none of it on. */
export const booster = z.strictObject({
  id,
  kind: z.literal('booster'),
  ...common,
  plugs,
  specs: numbersAnd(boosterSpecs, { einWeighting: weighting }),
  measured: measurements(boosterSpecs),
})
export type InlinePreamp = z.infer<typeof booster>

export const boosterTraits: GearTraits<InlinePreamp> = {
  ...plainTraits,
  words: { title: 'Inline preamp', name: 'an inline preamp' },
  allFields: boosterSpecs,
  fields: () => boosterSpecs,
  blank: { specs: { gain: 24, ein: -128, inputImpedance: 20_000, outputImpedance: 150 } },
}
