import { described, z } from '../../model/z'
import { fields, numbersAnd } from '../../model/field'
import { inForce, measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common, plugs, weighting } from '../common'
import { knobTable } from '../knob'
import { preampSpecs, preampSwitch } from '../preamp/preamp'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { choice, plainTraits, supplyChoice } from '../traits'

export const deskChannelSpecs = fields({
  ...preampSpecs,
  zero: {
    label: 'Meter’s zero mark',
    unit: 'dBu',
    min: -20,
    max: 30,
    optional: true,
    help: 'Output level at which the desk’s meter reads 0; +4 dBu where it is left out.',
  },
  faderMin: {
    label: 'Fader, lowest mark',
    unit: 'dB',
    min: -120,
    max: 0,
    initial: -90,
    help: 'The lowest useful one.',
  },
  faderMax: { label: 'Fader, highest mark', unit: 'dB', min: 0, max: 30, initial: 10, help: 'Fully up.' },
})

export const deskInputs = ['mic', 'line'] as const

/** One channel of a desk: gain, then the fader, then the sum or a direct output. The clipping point lies between. */
export const deskChannel = z.strictObject({
  id,
  kind: z.literal('desk-channel'),
  ...common,
  desk: described('The desk it belongs to.', z.optional(id)),
  input: z._default(z.enum(deskInputs), 'mic'),
  phantom: described('Whether it can give 48 V.', z._default(z.boolean(), false)),
  phantomBank: described('Channels of one desk and bank get their 48 V from one switch.', z.optional(id)),
  plugs,
  specs: numbersAnd(deskChannelSpecs, { einWeighting: weighting }),
  measured: measurements(deskChannelSpecs),
  knob: knobTable,
})
export type DeskChannel = z.infer<typeof deskChannel>
export const isDeskChannel = ofKind('desk-channel')

export const deskChannelTraits: GearTraits<DeskChannel> = {
  ...plainTraits,
  words: { title: 'Desk channel', name: 'a desk channel' },
  allFields: deskChannelSpecs,
  fields: () => deskChannelSpecs,
  settings: () => ['gain', 'fader', 'phantom', 'pad', 'lowCut', 'tap', 'cable', 'capacitance'],
  choices: ({ input, phantom }) => [
    choice('input', 'Channel input', input, { mic: 'microphone input', line: 'line input' }),
    supplyChoice(phantom),
  ],
  gainRange: (gear, _port, setting) => {
    const specs = inForce(gear)
    return setting === 'gain' ? specs : { gainMin: specs.faderMin, gainMax: specs.faderMax, gainStep: 0 }
  },
  hasSwitch: (gear, _port, setting) => preampSwitch(gear, setting),
  blank: {
    phantom: true,
    specs: {
      gainMin: 0,
      gainMax: 60,
      maxInput: 20,
      maxOutput: 22,
      ein: -126,
      inputImpedance: 2000,
      outputImpedance: 150,
    },
  },
}
