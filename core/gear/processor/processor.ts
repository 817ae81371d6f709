import { described, z } from '../../model/z'
import { fields, number, numbers, numberOrInitial } from '../../model/field'
import { inForce, measurements } from '../../model/measurement'
import { id, name } from '../../model/text'
import {
  arithmetics,
  common,
  gainFields,
  inputField,
  maxInputField,
  maxOutputField,
  outputField,
  outputNoiseField,
  plugs,
} from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { through } from '../../model/domain'
import { ANALOGUE_ONLY, arithmeticChoice, choice, plainTraits, without } from '../traits'

export const blockFields = fields({
  threshold: {
    label: 'Threshold',
    unit: 'dB',
    min: -120,
    max: 40,
    help: 'In dBu in analogue, dBFS in digital: the level of a sine’s peak.',
  },
  ratio: {
    label: 'Ratio',
    unit: ': 1',
    min: 1,
    max: 100,
    help: 'Input change over output change; of an expander the reverse.',
  },
  range: {
    label: 'Range',
    unit: 'dB',
    min: 0,
    max: 120,
    optional: true,
    help: 'The most that the expander takes away.',
  },
  takesOff: {
    label: 'Reduction wanted',
    unit: 'dB',
    min: 0.1,
    max: 40,
    optional: true,
    help: 'What it is to take off at the rehearsed peak; the planner brings the level there. Usually 3 to 6 dB (common practice).',
  },
  makeUp: { label: 'Make-up gain', unit: 'dB', min: -40, max: 40, initial: 0, help: 'Gain behind the compression.' },
  ceiling: { label: 'Ceiling', unit: 'dB', min: -60, max: 40, help: 'The highest level it lets through.' },
  change: {
    label: 'Change of level',
    unit: 'dB',
    min: -60,
    max: 60,
    initial: 0,
    help: 'What it does to this programme’s level as a whole.',
  },
  gain: { label: 'Gain', unit: 'dB', min: -60, max: 60, help: 'Fixed.' },
})

const shared = { name: z.optional(name), on: z._default(z.boolean(), true) }

/** One section of a processor, in the order in which the signal passes them. */
export const block = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('compressor'),
    ...shared,
    threshold: number(blockFields.threshold),
    ratio: number(blockFields.ratio),
    makeUp: numberOrInitial(blockFields.makeUp),
    takesOff: z.optional(number(blockFields.takesOff)),
  }),
  z.strictObject({
    type: z.literal('expander'),
    ...shared,
    threshold: number(blockFields.threshold),
    ratio: number(blockFields.ratio),
    range: z.optional(number(blockFields.range)),
  }),
  z.strictObject({ type: z.literal('limiter'), ...shared, ceiling: number(blockFields.ceiling) }),
  z.strictObject({ type: z.literal('equaliser'), ...shared, change: numberOrInitial(blockFields.change) }),
  z.strictObject({ type: z.literal('gain'), ...shared, gain: number(blockFields.gain) }),
])
export type Block = z.infer<typeof block>
export const blockTypes = [
  'compressor',
  'expander',
  'limiter',
  'equaliser',
  'gain',
] as const satisfies readonly Block['type'][]

export const processorSpecs = fields({
  ...gainFields,
  maxInput: { ...maxInputField, help: 'Input level at which it clips.' },
  maxOutput: maxOutputField,
  outputNoise: outputNoiseField,
  inputImpedance: inputField,
  outputImpedance: outputField,
})

export const processorDomains = ['analogue', 'digital'] as const

/** A channel processor or a plug-in: an ordered list of blocks, then its output gain. */
export const processor = z.strictObject({
  id,
  kind: z.literal('processor'),
  ...common,
  domain: z._default(z.enum(processorDomains), 'analogue'),
  arithmetic: described('Of a digital one.', z._default(z.enum(arithmetics), 'float')),
  blocks: z._default(z.array(block).check(z.maxLength(16)), []),
  plugs,
  specs: numbers(processorSpecs),
  measured: measurements(processorSpecs),
})
export type Processor = z.infer<typeof processor>
export const isProcessor = ofKind('processor')

const isDigital = ({ domain }: Pick<Processor, 'domain'>) => domain === 'digital'
const digitalFields = without(processorSpecs, ANALOGUE_ONLY)

export const processorTraits: GearTraits<Processor> = {
  ...plainTraits,
  words: { title: 'Processor', name: 'a processor', also: 'compressor limiter gate expander equaliser plug-in' },
  allFields: processorSpecs,
  fields: (gear) => (isDigital(gear) ? digitalFields : processorSpecs),
  settings: (gear) => (isDigital(gear) ? ['gain'] : ['gain', 'cable', 'capacitance']),
  domains: (gear) => through(gear.domain),
  sockets: (gear) => (isDigital(gear) ? [] : ['in', 'out']),
  choices: (gear) => [
    choice('domain', 'Domain', gear.domain, { analogue: 'analogue', digital: 'plug-in' }),
    ...(isDigital(gear) ? [arithmeticChoice(gear.arithmetic)] : []),
  ],
  gainRange: (gear, _port, setting) => (setting === 'gain' ? inForce(gear) : null),
  gainRests: 'zero',
  blank: {
    specs: { gainMin: -12, gainMax: 12, maxInput: 22, maxOutput: 22, inputImpedance: 20_000, outputImpedance: 150 },
  },
}
