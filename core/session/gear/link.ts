import { z } from '../z'
import { fields, measurements, numbers } from '../field'
import { id } from '../text'
import { common, inputField, maxInputField, maxOutputField, outputField, plugs } from './common'

export const linkSpecs = fields({
  latency: { label: 'Latency', unit: 'ms', min: 0, max: 1000, initial: 0, help: 'From its input to its output.' },
  dynamicRange: {
    label: 'Dynamic range',
    unit: 'dB',
    min: 30,
    max: 160,
    optional: true,
    help: 'Between its highest output and its noise, A-weighted.',
  },
  gain: {
    label: 'Gain',
    unit: 'dB',
    min: -60,
    max: 80,
    initial: 0,
    help: 'Of a wireless link, from its input to its output.',
  },
  maxInput: { ...maxInputField, help: 'Input level at which a wireless link clips.' },
  maxOutput: maxOutputField,
  inputImpedance: inputField,
  outputImpedance: outputField,
})

export const linkMedia = ['wireless', 'optical', 'network'] as const

/** A way without a copper lead: a wireless microphone link (analogue at both ends), or an optical or network one (digital). */
export const link = z.strictObject({
  id,
  kind: z.literal('link'),
  ...common,
  medium: z.enum(linkMedia),
  level: z.enum(['mic', 'line']).default('line').describe('Level class of a wireless receiver’s output.'),
  plugs,
  specs: numbers(linkSpecs),
  measured: measurements(linkSpecs),
})
