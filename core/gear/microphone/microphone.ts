import { described, z } from '../../model/z'
import type { FieldTable } from '../../model/field'
import { fields, numbers } from '../../model/field'
import { inForce, measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common, gainFields, lowCutField, lowCutSlopeField, phantomAttitudes, plugs } from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { attitudeChoice, BEFORE_LINE, choice, plainTraits, without } from '../traits'

export const microphoneSpecs = fields({
  sensitivity: {
    label: 'Sensitivity',
    unit: 'mV/Pa',
    min: 0.001,
    max: 1000,
    optional: true,
    help: 'Open circuit, at 1 kHz.',
  },
  impedance: { label: 'Impedance', unit: 'Ω', min: 1, max: 1_000_000, optional: true, help: 'At 1 kHz.' },
  selfNoise: {
    label: 'Self-noise',
    unit: 'dBA',
    min: -20,
    max: 80,
    optional: true,
    help: 'Equivalent sound level, A-weighted. Leave it out for a passive microphone: its impedance makes the noise.',
  },
  maxSpl: {
    label: 'Maximum SPL',
    unit: 'dB SPL',
    min: 60,
    max: 200,
    optional: true,
    help: 'The sine at which it overloads.',
    missing: 'Without it nobody knows when the microphone itself overloads.',
  },
  digitalSensitivity: {
    label: 'Level at 94 dB SPL',
    unit: 'dBFS',
    min: -100,
    max: 0,
    optional: true,
    help: 'Of a microphone with a converter of its own, at minimum gain.',
  },
  gainMin: { ...gainFields.gainMin, initial: undefined, optional: true },
  gainMax: { ...gainFields.gainMax, initial: undefined, optional: true },
  gainStep: { ...gainFields.gainStep, initial: undefined, optional: true },
  lowCut: lowCutField,
  lowCutSlope: lowCutSlopeField,
})

/** What only a microphone with volts at its output has, and what only one that gives numbers has. */
const ANALOGUE: ReadonlySet<string> = new Set(['sensitivity', 'impedance'])
const DIGITAL: ReadonlySet<string> = new Set(['digitalSensitivity', 'gainMin', 'gainMax', 'gainStep'])
/** In a form each kind needs its own: an analogue one is nothing without its sensitivity. */
const needed = (table: FieldTable, keys: ReadonlySet<string>): FieldTable =>
  Object.fromEntries(
    Object.entries(table).map(([key, { optional, ...field }]) => [
      key,
      optional && !keys.has(key) ? { ...field, optional } : field,
    ]),
  )
const analogueFields = needed(without(microphoneSpecs, DIGITAL), ANALOGUE)
const digitalFields = needed(without(microphoneSpecs, ANALOGUE), new Set(['digitalSensitivity']))
/** A passive one makes no noise but that of its impedance; one with electronics is noisier, and has to say by how much. */
const noisy = (table: FieldTable): FieldTable => ({
  ...table,
  selfNoise: { ...microphoneSpecs.selfNoise, missing: 'Without it the noise floor comes out too low.' },
})
const condenserFields = noisy(analogueFields)
const noisyDigitalFields = noisy(digitalFields)

export const principles = ['condenser', 'moving-coil', 'ribbon'] as const

/** Directivities of the first order. Left out, it counts as omni: the cautious case for the room's noise. */
export const patterns = ['omni', 'wide-cardioid', 'cardioid', 'supercardioid', 'hypercardioid', 'figure-8'] as const
export type Pattern = (typeof patterns)[number]

export const microphone = z.strictObject({
  id,
  kind: z.literal('microphone'),
  ...common,
  principle: z.enum(principles),
  pattern: described('Directivity; omni where it is left out.', z.optional(z.enum(patterns))),
  phantom: described('What 48 V phantom power does to it.', z.enum(phantomAttitudes)),
  plugs,
  specs: numbers(microphoneSpecs),
  measured: measurements(microphoneSpecs),
})
export type Microphone = z.infer<typeof microphone>
export const isMicrophone = ofKind('microphone')

/** Whether it has a converter of its own, and gives numbers: what it puts out at 94 dB SPL is stated in dBFS. */
export const isDigitalMicrophone = (gear: Microphone): boolean => inForce(gear).digitalSensitivity !== undefined

/** Usual figures (common practice, no source). */
const USUAL_ANALOGUE = { sensitivity: 12, impedance: 150 }
const USUAL_DIGITAL = { digitalSensitivity: -38, gainMin: 0, gainMax: 36 }

export const microphoneTraits: GearTraits<Microphone> = {
  ...plainTraits,
  words: { title: 'Microphone', name: 'a microphone' },
  allFields: microphoneSpecs,
  fields: (gear) =>
    isDigitalMicrophone(gear) ? noisyDigitalFields : gear.principle === 'condenser' ? condenserFields : analogueFields,
  settings: (gear) => (isDigitalMicrophone(gear) ? ['lowCut', 'angle', 'gain'] : ['lowCut', 'angle']),
  domains: (gear) => ({ takes: 'sound', gives: isDigitalMicrophone(gear) ? 'digital' : 'analogue' }),
  sockets: (gear) => (isDigitalMicrophone(gear) ? [] : ['out']),
  choices: (gear) => [
    choice('output', 'Output', isDigitalMicrophone(gear) ? 'digital' : 'analogue', {
      analogue: 'analogue',
      digital: 'digital, own converter',
    }),
    choice('principle', 'Principle', gear.principle, {
      'condenser': 'condenser',
      'moving-coil': 'moving coil',
      'ribbon': 'ribbon',
    }),
    ...(isDigitalMicrophone(gear) ? [] : [attitudeChoice(gear.phantom)]),
    choice('pattern', 'Pattern', gear.pattern ?? '', {
      '': 'pattern not set',
      'omni': 'omni',
      'wide-cardioid': 'wide cardioid',
      'cardioid': 'cardioid',
      'supercardioid': 'supercardioid',
      'hypercardioid': 'hypercardioid',
      'figure-8': 'figure-8',
    }),
  ],
  choose: (gear, key, value) => (key === 'output' ? withOutput(gear, value) : plainTraits.choose(gear, key, value)),
  gainRange: (gear, _port, setting) => {
    const { gainMin = 0, gainMax = gainMin, gainStep = 0 } = inForce(gear)
    return setting === 'gain' && isDigitalMicrophone(gear) ? { gainMin, gainMax, gainStep } : null
  },
  hasSwitch: (gear, _port, setting) => setting === 'lowCut' && inForce(gear).lowCut !== undefined,
  feedsBus: BEFORE_LINE,
  blank: { principle: 'condenser', phantom: 'needed', specs: { ...USUAL_ANALOGUE, selfNoise: 14, maxSpl: 134 } },
}

/** The other output, with its usual figures until they are given; those of the former one go. */
function withOutput(gear: Microphone, output: string): Microphone {
  const usual: object = output === 'digital' ? USUAL_DIGITAL : USUAL_ANALOGUE
  const gone = output === 'digital' ? ANALOGUE : DIGITAL
  const left = <T extends object>(values: T) =>
    Object.fromEntries(Object.entries(values).filter(([key]) => !gone.has(key)))
  return {
    ...gear,
    ...(output === 'digital' && { phantom: 'harmless' }),
    specs: { ...left(gear.specs), ...usual } as Microphone['specs'],
    ...(gear.measured && { measured: left(gear.measured) as Microphone['measured'] }),
    assumed: [...(gear.assumed ?? []).filter((key) => !gone.has(key)), ...Object.keys(usual)],
  }
}
