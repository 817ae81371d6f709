import { described, z } from '../z'
import { fields, numbers } from '../field'
import { inForce, measurements } from '../measurement'
import { id } from '../text'
import { common, lowCutField, lowCutSlopeField, phantomAttitudes, plugs } from './common'
import type { GearTraits } from './traits'
import { attitudeChoice, choice, plainTraits } from './traits'

export const microphoneSpecs = fields({
  sensitivity: { label: 'Sensitivity', unit: 'mV/Pa', min: 0.001, max: 1000, help: 'Open circuit, at 1 kHz.' },
  impedance: { label: 'Impedance', unit: 'Ω', min: 1, max: 1_000_000, help: 'At 1 kHz.' },
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
  },
  lowCut: lowCutField,
  lowCutSlope: lowCutSlopeField,
})

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

export const microphoneTraits: GearTraits<Microphone> = {
  ...plainTraits,
  words: { title: 'Microphone', name: 'a microphone' },
  allFields: microphoneSpecs,
  fields: () => microphoneSpecs,
  settings: () => ['lowCut', 'angle'],
  domains: () => ({ takes: 'sound', gives: 'analogue' }),
  sockets: () => ['out'],
  choices: ({ principle, phantom, pattern }) => [
    choice('principle', 'Principle', principle, {
      'condenser': 'condenser',
      'moving-coil': 'moving coil',
      'ribbon': 'ribbon',
    }),
    attitudeChoice(phantom),
    choice('pattern', 'Pattern', pattern ?? '', {
      '': 'pattern not given',
      'omni': 'omni',
      'wide-cardioid': 'wide cardioid',
      'cardioid': 'cardioid',
      'supercardioid': 'supercardioid',
      'hypercardioid': 'hypercardioid',
      'figure-8': 'figure-8',
    }),
  ],
  hasSwitch: (gear, _port, setting) => setting === 'lowCut' && inForce(gear).lowCut !== undefined,
  blank: {
    principle: 'condenser',
    phantom: 'needed',
    specs: { sensitivity: 12, impedance: 150, selfNoise: 14, maxSpl: 134 },
  },
}
