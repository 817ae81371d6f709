import { z } from '../z'
import { fields, measurements, numbers } from '../field'
import { id } from '../text'
import {
  arithmetics,
  common,
  inputField,
  maxInputField,
  maxOutputField,
  outputField,
  outputNoiseField,
  plugs,
} from './common'

export const faderSpecs = fields({
  gainMin: { label: 'Lowest', unit: 'dB', min: -120, max: 0, initial: -90, help: 'Lowest useful mark.' },
  gainMax: { label: 'Highest', unit: 'dB', min: 0, max: 40, initial: 10, help: 'Highest mark.' },
  gainStep: { label: 'Step', unit: 'dB', min: 0, max: 20, initial: 0, help: '0 for one without steps.' },
  maxInput: { ...maxInputField, help: 'Input level at which it clips, whatever the fader says.' },
  maxOutput: maxOutputField,
  outputNoise: outputNoiseField,
  inputImpedance: inputField,
  outputImpedance: outputField,
})

export const faderPlaces = ['desk', 'system', 'host'] as const

/** A group, master or player volume in analogue (`desk`), the operating system's slider (`system`), a host's fader (`host`). */
export const fader = z.strictObject({
  id,
  kind: z.literal('fader'),
  ...common,
  place: z.enum(faderPlaces).default('desk'),
  arithmetic: z.enum(arithmetics).default('fixed').describe('Of a digital one.'),
  plugs,
  specs: numbers(faderSpecs),
  measured: measurements(faderSpecs),
})
