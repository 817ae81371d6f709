import { described, z } from '../../model/z'
import { fields, number, numberOrInitial, numbers } from '../../model/field'
import { measurements } from '../../model/measurement'
import { id, name } from '../../model/text'
import { common } from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { PERFORMANCE, plainTraits } from '../traits'

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

export const pieceFields = fields({
  level: { ...playbackSpecs.level, help: 'Of its loudest passage, RMS, AES17.' },
  crest: { ...playbackSpecs.crest, help: 'Peak of the piece over that average.' },
  loudestAt: {
    label: 'Loudest at',
    unit: 's',
    min: 0,
    max: 1_000_000,
    optional: true,
    help: 'Where the loudest passage begins.',
  },
  trim: { label: 'Trim', unit: 'dB', min: -80, max: 60, initial: 0, help: 'What is added to it, remembered with it.' },
})

/** One recording of a list: measured once, and trimmed so that its loudest passage reaches the same mark as the others’. */
export const piece = z.strictObject({
  id,
  name,
  level: number(pieceFields.level),
  crest: number(pieceFields.crest),
  loudestAt: z.optional(number(pieceFields.loudestAt)),
  trim: numberOrInitial(pieceFields.trim),
})
export type Piece = z.infer<typeof piece>

/** A recording that is played inside the host: the digital beginning of a strip. With pieces, their levels are its levels. */
export const playback = z.strictObject({
  id,
  kind: z.literal('playback'),
  ...common,
  pieces: described(
    'What is played, each with its own level and trim.',
    z.optional(z.array(piece).check(z.maxLength(500))),
  ),
  specs: numbers(playbackSpecs),
  measured: measurements(playbackSpecs),
})
export type Playback = z.infer<typeof playback>
export const isPlayback = ofKind('playback')

export const playbackTraits: GearTraits<Playback> = {
  ...plainTraits,
  words: { title: 'Playback', name: 'a playback' },
  allFields: playbackSpecs,
  fields: () => playbackSpecs,
  settings: () => [],
  domains: () => ({ takes: null, gives: 'digital' }),
  sockets: () => [],
  performance: PERFORMANCE,
  blank: { specs: { level: -20, crest: 12 } },
}
