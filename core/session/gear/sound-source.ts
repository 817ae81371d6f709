import { z } from '../z'
import { fields, measurements, numbers } from '../field'
import { id } from '../text'
import { common } from './common'

export const soundSourceSpecs = fields({
  level: {
    label: 'Average',
    unit: 'dB SPL',
    min: 0,
    max: 160,
    help: 'At the stated distance, during the loudest rehearsed passage.',
  },
  distance: {
    label: 'Stated at',
    unit: 'm',
    min: 0.01,
    max: 100,
    initial: 1,
    help: 'The distance at which the level was taken.',
  },
  crest: {
    label: 'Crest factor',
    unit: 'dB',
    min: 0,
    max: 40,
    help: 'Peak over average; a sine has 3.01 dB, speech and plucked strings 12 to 20 dB.',
  },
  surge: {
    label: 'Surge',
    unit: 'dB',
    min: 0,
    max: 40,
    initial: 0,
    help: 'How much louder the take gets than the soundcheck.',
  },
})

/** A voice, an instrument, a room event: something that makes sound in air. */
export const soundSource = z.strictObject({
  id,
  kind: z.literal('sound-source'),
  ...common,
  specs: numbers(soundSourceSpecs),
  measured: measurements(soundSourceSpecs),
})
export type SoundSource = z.infer<typeof soundSource>
