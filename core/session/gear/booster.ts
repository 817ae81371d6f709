import { z } from '../z'
import { fields, measurements, numbersAnd } from '../field'
import { id } from '../text'
import { common, einField, inputField, maxOutputField, outputField, plugs, weighting } from './common'

export const boosterSpecs = fields({
  gain: { label: 'Gain', unit: 'dB', min: 0, max: 60, help: 'Fixed.' },
  ein: einField,
  inputImpedance: inputField,
  outputImpedance: outputField,
  maxOutput: maxOutputField,
})

/** A fixed gain in the microphone's line, fed by phantom power and passing none of it on to the microphone. */
export const booster = z.strictObject({
  id,
  kind: z.literal('booster'),
  ...common,
  plugs,
  specs: numbersAnd(boosterSpecs, { einWeighting: weighting }),
  measured: measurements(boosterSpecs),
})
