import { z } from '../z'
import { fields, measurements, numbersAnd } from '../field'
import { id } from '../text'
import {
  common,
  einField,
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
} from './common'
import { knobTable } from './knob'

export const preampSpecs = fields({
  ...gainFields,
  maxInput: maxInputField,
  maxOutput: maxOutputField,
  ein: einField,
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
  phantom: z.boolean().default(false).describe('Whether it can give 48 V.'),
  plugs,
  specs: numbersAnd(preampSpecs, { einWeighting: weighting }),
  measured: measurements(preampSpecs),
  knob: knobTable,
})
