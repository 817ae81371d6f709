import { z } from '../../model/z'
import { fields, numbers } from '../../model/field'
import { inForce, measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common, inputField, maxInputField, outputNoiseField, plugs } from '../common'
import type { GearTraits } from '../traits'
import { plainTraits } from '../traits'

export const amplifierSpecs = fields({
  gain: { label: 'Voltage gain', unit: 'dB', min: 0, max: 60, help: 'With its knob fully up.' },
  maxPower: { label: 'Maximum power', unit: 'W', min: 0.1, max: 20_000, help: 'Of a sine into the load, one channel.' },
  load: { label: 'Into', unit: 'Ω', min: 1, max: 64, help: 'The load that the power is stated for.' },
  maxInput: maxInputField,
  inputImpedance: inputField,
  outputNoise: outputNoiseField,
  gainMin: { label: 'Minimum gain', unit: 'dB', min: -120, max: 0, initial: 0, help: 'Fully down, against fully up.' },
  gainMax: { label: 'Maximum gain', unit: 'dB', min: 0, max: 0, initial: 0, help: 'Fully up is 0.' },
  gainStep: { label: 'Gain step', unit: 'dB', min: 0, max: 20, initial: 0, help: '0 for one without steps.' },
})

/** A power amplifier before a passive loudspeaker. */
export const amplifier = z.strictObject({
  id,
  kind: z.literal('amplifier'),
  ...common,
  plugs,
  specs: numbers(amplifierSpecs),
  measured: measurements(amplifierSpecs),
})
export type Amplifier = z.infer<typeof amplifier>

export const amplifierTraits: GearTraits<Amplifier> = {
  ...plainTraits,
  words: { title: 'Power amplifier', name: 'a power amplifier' },
  allFields: amplifierSpecs,
  fields: () => amplifierSpecs,
  settings: () => ['gain', 'cable', 'capacitance'],
  gainRange: (gear, _port, setting) => (setting === 'gain' ? inForce(gear) : null),
  gainRests: 'zero',
  blank: { specs: { gain: 32, maxPower: 200, load: 8, maxInput: 20, inputImpedance: 20_000, gainMin: -60 } },
}
