import { described, z } from '../../model/z'
import { fields, numbers } from '../../model/field'
import { measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common, inputField, maxInputField, maxOutputField, outputField, plugs } from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { through } from '../../model/domain'
import { ANALOGUE_ONLY, choice, plainTraits, without } from '../traits'

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

/** A way without a copper cable: a wireless microphone link (analogue at both ends), or an optical or network one (digital). */
export const link = z.strictObject({
  id,
  kind: z.literal('link'),
  ...common,
  medium: z.enum(linkMedia),
  level: described('Level class of a wireless receiver’s output.', z._default(z.enum(['mic', 'line']), 'line')),
  plugs,
  specs: numbers(linkSpecs),
  measured: measurements(linkSpecs),
})
export type Link = z.infer<typeof link>
export const isLink = ofKind('link')

const isWireless = ({ medium }: Pick<Link, 'medium'>) => medium === 'wireless'
const digitalFields = without(linkSpecs, new Set([...ANALOGUE_ONLY, 'gain']))

export const linkTraits: GearTraits<Link> = {
  ...plainTraits,
  words: { title: 'Link', name: 'a link' },
  allFields: linkSpecs,
  fields: (gear) => (isWireless(gear) ? linkSpecs : digitalFields),
  settings: (gear) => (isWireless(gear) ? ['cable', 'capacitance'] : []),
  domains: (gear) => through(isWireless(gear) ? 'analogue' : 'digital'),
  sockets: (gear) => (isWireless(gear) ? ['in', 'out'] : []),
  choices: (gear) => [
    choice('medium', 'Medium', gear.medium, { wireless: 'wireless', optical: 'optical', network: 'network' }),
    ...(isWireless(gear)
      ? [choice('level', 'Receiver output', gear.level, { mic: 'microphone level', line: 'line level' })]
      : []),
  ],
  blank: { medium: 'wireless', specs: { latency: 3, dynamicRange: 105 } },
}
