import { z } from '../z'
import { fields, measurements, numbers } from '../field'
import { id } from '../text'
import { common, lowCutField, lowCutSlopeField, phantomAttitudes, plugs } from './common'

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
    label: 'Overloads at',
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

export const microphone = z.strictObject({
  id,
  kind: z.literal('microphone'),
  ...common,
  principle: z.enum(principles),
  phantom: z.enum(phantomAttitudes).describe('What 48 V phantom power does to it.'),
  plugs,
  specs: numbers(microphoneSpecs),
  measured: measurements(microphoneSpecs),
})
