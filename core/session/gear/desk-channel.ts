import { z } from '../z'
import { fields, measurements, numbersAnd } from '../field'
import { id } from '../text'
import { common, plugs, weighting } from './common'
import { knobTable } from './knob'
import { preampSpecs } from './preamp'

export const deskChannelSpecs = fields({
  ...preampSpecs,
  faderMin: { label: 'Fader, lowest', unit: 'dB', min: -120, max: 0, initial: -90, help: 'Lowest useful fader mark.' },
  faderMax: { label: 'Fader, highest', unit: 'dB', min: 0, max: 30, initial: 10, help: 'Highest fader mark.' },
})

export const deskInputs = ['mic', 'line'] as const

/** One channel of a desk: gain, then the fader, then the sum or a direct output. The clipping point lies between. */
export const deskChannel = z.strictObject({
  id,
  kind: z.literal('desk-channel'),
  ...common,
  desk: id.optional().describe('The desk it belongs to.'),
  input: z.enum(deskInputs).default('mic'),
  phantom: z.boolean().default(false).describe('Whether it can give 48 V.'),
  phantomBank: id.optional().describe('Channels of one desk and bank get their 48 V from one switch.'),
  plugs,
  specs: numbersAnd(deskChannelSpecs, { einWeighting: weighting }),
  measured: measurements(deskChannelSpecs),
  knob: knobTable,
})
