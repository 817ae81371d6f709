import { described, z } from '../../model/z'
import { fields, numbers } from '../../model/field'
import { measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common, inputField, maxInputField, outputField, phantomAttitudes, plugs } from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { attitudeChoice, BEFORE_LINE, plainTraits } from '../traits'

export const diBoxSpecs = fields({
  ratio: {
    label: 'Turns ratio',
    unit: ': 1',
    min: 1,
    max: 100,
    help: 'Input to output voltage: 12 : 1 loses 21.6 dB.',
  },
  inputImpedance: inputField,
  outputImpedance: outputField,
  maxInput: { ...maxInputField, help: 'Input level at which it saturates.' },
})

/** A box that turns an instrument's or a line's signal into a balanced one of microphone level. */
export const diBox = z.strictObject({
  id,
  kind: z.literal('di-box'),
  ...common,
  phantom: described(
    'What 48 V phantom power does to it; an active one needs it.',
    z._default(z.enum(phantomAttitudes), 'harmless'),
  ),
  plugs,
  specs: numbers(diBoxSpecs),
  measured: measurements(diBoxSpecs),
})
export type DiBox = z.infer<typeof diBox>
export const isDiBox = ofKind('di-box')

export const diBoxTraits: GearTraits<DiBox> = {
  ...plainTraits,
  words: { title: 'DI box', name: 'a DI box' },
  allFields: diBoxSpecs,
  fields: () => diBoxSpecs,
  choices: ({ phantom }) => [attitudeChoice(phantom)],
  feedsBus: BEFORE_LINE,
  blank: { specs: { ratio: 12, inputImpedance: 140_000, outputImpedance: 150 } },
}
