import { described, z } from '../../model/z'
import { fields, numbers } from '../../model/field'
import { inForce, measurements } from '../../model/measurement'
import { id } from '../../model/text'
import {
  arithmetics,
  common,
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

export const faderSpecs = fields({
  gainMin: { label: 'Fader minimum', unit: 'dB', min: -120, max: 0, initial: -90, help: 'The lowest useful one.' },
  gainMax: { label: 'Fader maximum', unit: 'dB', min: 0, max: 40, initial: 10, help: 'Fully up.' },
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
  place: z._default(z.enum(faderPlaces), 'desk'),
  arithmetic: described('Of a digital one.', z._default(z.enum(arithmetics), 'fixed')),
  plugs,
  specs: numbers(faderSpecs),
  measured: measurements(faderSpecs),
})
export type Fader = z.infer<typeof fader>
export const isFader = ofKind('fader')

const isDigital = ({ place }: Pick<Fader, 'place'>) => place !== 'desk'
const digitalFields = without(faderSpecs, ANALOGUE_ONLY)

export const faderTraits: GearTraits<Fader> = {
  ...plainTraits,
  words: { title: 'Fader', name: 'a fader' },
  allFields: faderSpecs,
  fields: (gear) => (isDigital(gear) ? digitalFields : faderSpecs),
  settings: (gear) => (isDigital(gear) ? ['gain'] : ['gain', 'cable', 'capacitance']),
  domains: (gear) => through(isDigital(gear) ? 'digital' : 'analogue'),
  sockets: (gear) => (isDigital(gear) ? [] : ['in', 'out']),
  choices: (gear) => [
    choice('place', 'Place', gear.place, {
      desk: 'analogue, at the desk',
      system: 'operating system’s slider',
      host: 'in the host',
    }),
    ...(isDigital(gear) ? [arithmeticChoice(gear.arithmetic)] : []),
  ],
  gainRange: (gear, _port, setting) => (setting === 'gain' ? inForce(gear) : null),
  gainRests: 'zero',
  blank: { specs: {} },
}
