import { z } from '../../model/z'
import { fields, numbersAnd } from '../../model/field'
import { measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common, einField, einSourceField, inputField, maxOutputField, outputField, plugs, weighting } from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { BEFORE_LINE, plainTraits } from '../traits'

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
export const isInlinePreamp = ofKind('booster')

export const boosterTraits: GearTraits<InlinePreamp> = {
  ...plainTraits,
  words: { title: 'Inline preamp', name: 'an inline preamp' },
  allFields: boosterSpecs,
  fields: () => boosterSpecs,
  feedsBus: BEFORE_LINE,
  blank: { specs: { gain: 24, ein: -128, inputImpedance: 20_000, outputImpedance: 150 } },
}
