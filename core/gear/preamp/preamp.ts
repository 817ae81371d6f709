import { described, z } from '../../model/z'
import { fields, numbersAnd } from '../../model/field'
import { inForce, measurements } from '../../model/measurement'
import { id } from '../../model/text'
import {
  common,
  einField,
  einSourceField,
  gainFields,
  inputField,
  lowCutField,
  lowCutSlopeField,
  maxInputField,
  maxOutputField,
  outputField,
  outputNoiseField,
  padField,
  plugs,
  weighting,
} from '../common'
import { knobTable } from '../knob'
import type { Values } from '../../model/field'
import type { SwitchName } from '../../model/settings'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { plainTraits, supplyChoice } from '../traits'

export const preampSpecs = fields({
  ...gainFields,
  maxInput: maxInputField,
  maxOutput: { ...maxOutputField, missing: 'Without it nobody knows when it clips.' },
  ein: einField,
  einSource: einSourceField,
  outputNoise: outputNoiseField,
  inputImpedance: inputField,
  outputImpedance: outputField,
  pad: padField,
  lowCut: lowCutField,
  lowCutSlope: lowCutSlopeField,
})

/** A microphone preamplifier of its own. */
export const preamp = z.strictObject({
  id,
  kind: z.literal('preamp'),
  ...common,
  phantom: described('Whether it can give 48 V.', z._default(z.boolean(), false)),
  plugs,
  specs: numbersAnd(preampSpecs, { einWeighting: weighting }),
  measured: measurements(preampSpecs),
  knob: knobTable,
})
export type Preamp = z.infer<typeof preamp>
export const isPreamp = ofKind('preamp')

export const preampTraits: GearTraits<Preamp> = {
  ...plainTraits,
  words: { title: 'Preamp', name: 'a preamp' },
  allFields: preampSpecs,
  fields: () => preampSpecs,
  settings: () => ['gain', 'phantom', 'pad', 'lowCut', 'cable', 'capacitance'],
  choices: ({ phantom }) => [supplyChoice(phantom)],
  gainRange: (gear, _port, setting) => (setting === 'gain' ? inForce(gear) : null),
  hasSwitch: (gear, _port, setting) => preampSwitch(gear, setting),
  blank: {
    phantom: true,
    specs: { gainMin: 10, gainMax: 60, maxOutput: 24, ein: -127, inputImpedance: 2000, outputImpedance: 150 },
  },
}

/** Whether a box with a preamp has a switch. */
export function preampSwitch(
  gear: { phantom: boolean; specs: Values<typeof preampSpecs>; measured?: object | undefined },
  setting: SwitchName,
): boolean {
  const specs = inForce(gear)
  switch (setting) {
    case 'phantom':
      return gear.phantom
    case 'pad':
      return specs.pad > 0
    case 'lowCut':
      return specs.lowCut !== undefined
  }
}
