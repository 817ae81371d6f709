import { described, z } from '../../model/z'
import type { Values } from '../../model/field'
import { fields, number, numbers, numbersAnd } from '../../model/field'
import { dbu } from '../../units'
import { inForce, measurements } from '../../model/measurement'
import { bufferFramesField, sampleRateField } from '../../model/system'
import { id } from '../../model/text'
import { common, einSourceField, plug, weighting } from '../common'
import { assumed, tolerance } from '../../model/doubt'
import { knobTable } from '../knob'
import type { Domains } from '../../model/domain'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { choice, plainTraits } from '../traits'

export const inputSpecs = fields({
  gainMin: {
    label: 'Minimum gain',
    unit: 'dB',
    min: -60,
    max: 100,
    initial: 0,
    help: 'What the knob says, or counts as, fully down.',
  },
  gainMax: { label: 'Maximum gain', unit: 'dB', min: -60, max: 100, initial: 0, help: 'Fully up.' },
  gainStep: {
    label: 'Gain step',
    unit: 'dB',
    min: 0,
    max: 20,
    initial: 0,
    help: 'Of a stepped or digital gain control; 0 for a knob without steps.',
  },
  fullScale: {
    label: 'Maximum input level',
    unit: 'dBu',
    min: -60,
    max: 60,
    help: 'The input level that reads 0 dBFS at minimum gain, pad out.',
  },
  ein: {
    label: 'EIN',
    unit: 'dBu',
    min: -160,
    max: -40,
    optional: true,
    help: 'Equivalent input noise, with the resistor that it was measured with.',
  },
  einSource: einSourceField,
  dynamicRange: {
    label: 'Dynamic range',
    unit: 'dB',
    min: 30,
    max: 160,
    help: 'Of the converter, A-weighted (AES17).',
  },
  impedance: {
    label: 'Input impedance',
    unit: 'Ω',
    min: 10,
    max: 100_000_000,
    optional: true,
    help: 'The load that the source sees.',
  },
  pad: {
    label: 'Pad',
    unit: 'dB',
    min: 0,
    max: 60,
    initial: 0,
    help: 'Loss of the switchable pad; 0 where there is none.',
  },
})

export const outputSpecs = fields({
  fullScale: {
    label: 'Maximum output level',
    unit: 'dBu',
    min: -60,
    max: 60,
    help: 'What 0 dBFS gives with the volume fully up.',
  },
  dynamicRange: {
    label: 'Dynamic range',
    unit: 'dB',
    min: 30,
    max: 160,
    optional: true,
    help: 'Of the converter, A-weighted (AES17).',
  },
  impedance: {
    label: 'Output impedance',
    unit: 'Ω',
    min: 0,
    max: 100_000,
    optional: true,
    help: 'What the headphones or the amplifier are driven from.',
  },
})

export const latencySpecs = fields({
  converterIn: {
    label: 'A/D converter',
    unit: 'frames',
    min: 0,
    max: 10_000,
    initial: 0,
    help: 'Delay of the input converter.',
  },
  converterOut: {
    label: 'D/A converter',
    unit: 'frames',
    min: 0,
    max: 10_000,
    initial: 0,
    help: 'Delay of the output converter.',
  },
  safetyIn: {
    label: 'Driver margin in',
    unit: 'frames',
    min: 0,
    max: 10_000,
    initial: 0,
    help: 'Transport and what the driver keeps in hand, input side.',
  },
  safetyOut: {
    label: 'Driver margin out',
    unit: 'frames',
    min: 0,
    max: 10_000,
    initial: 0,
    help: 'Transport and what the driver keeps in hand, output side.',
  },
  buffersIn: {
    label: 'Buffers in',
    unit: 'buffers',
    min: 1,
    max: 8,
    whole: true,
    initial: 1,
    help: 'How many buffers the driver holds on the way in.',
  },
  buffersOut: {
    label: 'Buffers out',
    unit: 'buffers',
    min: 1,
    max: 8,
    whole: true,
    initial: 1,
    help: 'How many buffers the driver holds on the way out.',
  },
  fixed: {
    label: 'Fixed',
    unit: 'ms',
    min: 0,
    max: 1000,
    initial: 0,
    help: 'What does not change with the sample rate.',
  },
})

export const inputTypes = ['mic', 'line', 'instrument'] as const
export const outputTypes = ['headphone', 'line', 'monitor'] as const
export const directMonitoring = ['digital', 'analogue', 'none'] as const

/** Equivalent input noise of a microphone input where nobody gave one, dBu(A) (common practice, no source). */
const USUAL_EIN = -127

const analogueFields = z.strictObject({
  id,
  type: z.enum(inputTypes),
  phantom: described('Whether this input can give 48 V.', z._default(z.boolean(), false)),
  phantomBank: described('Inputs of one bank get their 48 V from one switch.', z.optional(id)),
  socket: described('Inputs with the same one are one combined socket, used in one way at a time.', z.optional(id)),
  plug: z.optional(plug),
  assumed,
  tolerance,
  specs: numbersAnd(inputSpecs, { einWeighting: weighting }),
  measured: measurements(inputSpecs),
  knob: knobTable,
})

/** A microphone input is there before its noise is known: a usual figure stands in for it, marked as assumed. */
const analogueInput = analogueFields.check(
  z.overwrite((input) => {
    const { type, specs, measured, assumed: known = [] } = input
    if (type !== 'mic' || specs.ein !== undefined || measured?.ein) return input
    return { ...input, specs: { ...specs, ein: dbu(USUAL_EIN) }, assumed: [...new Set([...known, 'ein'])] }
  }),
)

/** An input that takes numbers from another unit: no gain, no converter, the other unit's clock or its own. */
const digitalInput = z.strictObject({ id, type: z.literal('digital'), plug: z.optional(plug) })

/** Inputs stand in the order in which the recorder counts them. */
const input = z.discriminatedUnion('type', [analogueInput, digitalInput])

const output = z.strictObject({
  id,
  type: z.enum(outputTypes),
  assumed,
  tolerance,
  specs: numbers(outputSpecs),
  measured: measurements(outputSpecs),
})

/** An audio interface: converters, the preamps before them, and the way through the host. */
export const audioInterface = z.strictObject({
  id,
  kind: z.literal('interface'),
  ...common,
  inputs: z.array(input).check(z.minLength(1), z.maxLength(128)),
  outputs: z._default(z.array(output).check(z.maxLength(128)), []),
  sampleRates: described(
    'Sample rates that the unit offers, in Hz.',
    z.optional(z.array(number(sampleRateField)).check(z.minLength(1), z.maxLength(16))),
  ),
  bufferSizes: described(
    'Buffer sizes that its driver offers, in frames.',
    z.optional(z.array(number(bufferFramesField)).check(z.minLength(1), z.maxLength(32))),
  ),
  direct: described(
    'How the unit monitors its inputs without the host.',
    z._default(z.enum(directMonitoring), 'digital'),
  ),
  latency: z.optional(numbers(latencySpecs)),
})
export type AudioInterface = z.infer<typeof audioInterface>
export const isInterface = ofKind('interface')
export type InterfaceInput = z.infer<typeof input>
export type AnalogueInput = z.infer<typeof analogueFields>
export type InterfaceOutput = z.infer<typeof output>
export type InputSpecs = Values<typeof inputSpecs>
export type InterfaceLatency = Values<typeof latencySpecs>

/** The analogue input of a port; none where it is digital, or not there. */
const analogueAt = ({ inputs }: AudioInterface, port: string | undefined): AnalogueInput | undefined => {
  const found = inputs.find((each) => each.id === port)
  return found && found.type !== 'digital' ? found : undefined
}

/** The output of a port: a stage there gives the host’s numbers out as volts. An input of the same name goes before it. */
export const outputAt = ({ inputs, outputs }: AudioInterface, port: string | undefined): InterfaceOutput | undefined =>
  inputs.some((each) => each.id === port) ? undefined : outputs.find((each) => each.id === port)

const domainsAt = (gear: AudioInterface, port: string | undefined): Domains => {
  if (outputAt(gear, port)) return { takes: 'digital', gives: 'analogue' }
  return {
    takes: gear.inputs.find((each) => each.id === port)?.type === 'digital' ? 'digital' : 'analogue',
    gives: 'digital',
  }
}

export const interfaceTraits: GearTraits<AudioInterface> = {
  ...plainTraits,
  words: { title: 'Interface input', name: 'an interface input', box: 'Interface' },
  // Its figures stand at its ports.
  allFields: {},
  fields: () => ({}),
  settings: (gear, port) => (analogueAt(gear, port) ? ['gain', 'phantom', 'pad', 'cable', 'capacitance'] : []),
  domains: domainsAt,
  sockets: () => [],
  choices: ({ direct }) => [
    choice('direct', 'Direct monitoring', direct, {
      digital: 'in its digital mixer',
      analogue: 'in analogue',
      none: 'not at all',
    }),
  ],
  gainRange: (gear, port, setting) => {
    const found = analogueAt(gear, port)
    return found && setting === 'gain' ? inForce(found) : null
  },
  hasSwitch: (gear, port, setting) => {
    const found = analogueAt(gear, port)
    if (!found || setting === 'lowCut') return false
    return setting === 'phantom' ? found.phantom : inForce(found).pad > 0
  },
  blank: {
    inputs: [
      {
        id: 'in1',
        type: 'mic',
        phantom: true,
        specs: {
          gainMin: 0,
          gainMax: 60,
          gainStep: 1,
          fullScale: 12,
          ein: USUAL_EIN,
          dynamicRange: 110,
          impedance: 2000,
        },
      },
    ],
    outputs: [{ id: 'phones', type: 'headphone', specs: { fullScale: 10, impedance: 10 } }],
  },
}
