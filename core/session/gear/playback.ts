import { z } from '../z'
import { fields, numbers } from '../field'
import { measurements } from '../measurement'
import { id } from '../text'
import { common } from './common'
import type { GearTraits } from './traits'
import { plainTraits } from './traits'

export const playbackSpecs = fields({
  level: { label: 'Average', unit: 'dBFS', min: -90, max: 0, help: 'Of the loudest passage, RMS, AES17.' },
  crest: { label: 'Crest factor', unit: 'dB', min: 0, max: 40, help: 'Peak over average.' },
  surge: { label: 'Surge', unit: 'dB', min: 0, max: 40, initial: 0, help: 'How much louder another passage may get.' },
  noise: {
    label: 'Own noise',
    unit: 'dBFS',
    min: -160,
    max: 0,
    optional: true,
    help: 'Floor of the recording, A-weighted.',
  },
})

/** A recording that is played inside the host: the digital beginning of a strip. */
export const playback = z.strictObject({
  id,
  kind: z.literal('playback'),
  ...common,
  specs: numbers(playbackSpecs),
  measured: measurements(playbackSpecs),
})
export type Playback = z.infer<typeof playback>

export const playbackTraits: GearTraits<Playback> = {
  ...plainTraits,
  words: { title: 'Playback', name: 'a playback' },
  allFields: playbackSpecs,
  fields: () => playbackSpecs,
  settings: () => [],
  domains: () => ({ takes: null, gives: 'digital' }),
  sockets: () => [],
  blank: { specs: { level: -20, crest: 12 } },
}
