import { described, z } from '../../model/z'
import { fields, number, numbers } from '../../model/field'
import { inForce, measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common } from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { PERFORMANCE, plainTraits } from '../traits'

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

export const sizeField = {
  label: 'Size',
  unit: 'm',
  min: 0.001,
  max: 50,
  optional: true,
  help: 'Greatest dimension of what sounds. Close to a large source the level rises less than by the inverse distance; left out, it is a point.',
} as const

/** A voice, an instrument, a room event: something that makes sound in air. */
export const soundSource = z.strictObject({
  id,
  kind: z.literal('sound-source'),
  ...common,
  size: described('Greatest dimension, m; a point where it is left out.', z.optional(number(sizeField))),
  specs: numbers(soundSourceSpecs),
  measured: measurements(soundSourceSpecs),
})
export type SoundSource = z.infer<typeof soundSource>
export const isSoundSource = ofKind('sound-source')

export const soundSourceTraits: GearTraits<SoundSource> = {
  ...plainTraits,
  words: { title: 'Source', name: 'a sound source' },
  allFields: soundSourceSpecs,
  fields: () => soundSourceSpecs,
  settings: () => ['distance'],
  domains: () => ({ takes: null, gives: 'sound' }),
  sockets: () => [],
  performance: PERFORMANCE,
  usualPlace: (gear) => ({ distance: inForce(gear).distance }),
  blank: { specs: { level: 70, crest: 14 } },
}
