import { described, z } from '../../model/z'
import { fields, numbers } from '../../model/field'
import { inForce, measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common, inputField, maxInputField, plugs } from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { choice, plainTraits } from '../traits'

export const loudspeakerSpecs = fields({
  sensitivity: {
    label: 'Sensitivity',
    unit: 'dB SPL',
    min: 40,
    max: 160,
    help: 'Sound level at 1 m. Active: for 0 dBu with its knob at the mark. Passive: for 2.83 V (1 W at 8 Ω).',
  },
  maxSpl: { label: 'Maximum SPL', unit: 'dB SPL', min: 60, max: 180, optional: true, help: 'The loudest sine at 1 m.' },
  maxInput: maxInputField,
  inputImpedance: inputField,
  gainMin: { label: 'Minimum gain', unit: 'dB', min: -120, max: 0, initial: 0, help: 'Fully down, against its mark.' },
  gainMax: { label: 'Maximum gain', unit: 'dB', min: 0, max: 60, initial: 0, help: 'Fully up, against its mark.' },
  gainStep: { label: 'Gain step', unit: 'dB', min: 0, max: 20, initial: 0, help: '0 for one without steps.' },
  count: {
    label: 'How many alike',
    unit: 'times',
    min: 1,
    max: 64,
    whole: true,
    initial: 1,
    help: 'That play the same to the same listener: n of them are 10 lg n louder, unrelated.',
  },
})

export const loudspeakerBands = ['full', 'sub', 'top'] as const

/** A loudspeaker, the end of a strip: levels behind it are sound levels at the listener. */
export const loudspeaker = z.strictObject({
  id,
  kind: z.literal('loudspeaker'),
  ...common,
  band: described(
    'The whole range, the lowest octaves, or what is above them.',
    z._default(z.enum(loudspeakerBands), 'full'),
  ),
  power: described('With its amplifier inside, or driven by one.', z._default(z.enum(['active', 'passive']), 'active')),
  plugs,
  specs: numbers(loudspeakerSpecs),
  measured: measurements(loudspeakerSpecs),
})
export type Loudspeaker = z.infer<typeof loudspeaker>
export const isLoudspeaker = ofKind('loudspeaker')

/** From a loudspeaker to the listener where nobody said, m (common practice, no source). */
const LISTENER = 4

export const loudspeakerTraits: GearTraits<Loudspeaker> = {
  ...plainTraits,
  words: { title: 'Loudspeaker', name: 'a loudspeaker' },
  allFields: loudspeakerSpecs,
  fields: () => loudspeakerSpecs,
  settings: () => ['gain', 'distance', 'toMicrophone', 'cable', 'capacitance'],
  domains: () => ({ takes: 'analogue', gives: 'sound' }),
  sockets: () => ['in'],
  choices: (gear) => [
    choice('band', 'Band', gear.band, { full: 'full range', sub: 'subwoofer', top: 'top' }),
    choice('power', 'Amplifier', gear.power, { active: 'inside (active)', passive: 'outside (passive)' }),
  ],
  gainRange: (gear, _port, setting) => (setting === 'gain' ? inForce(gear) : null),
  gainRests: 'zero',
  usualPlace: () => ({ distance: LISTENER }),
  blank: { specs: { sensitivity: 100, maxSpl: 115, maxInput: 20, inputImpedance: 20_000, gainMin: -60, gainMax: 6 } },
}
