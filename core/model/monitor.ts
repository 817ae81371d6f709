import { fields, number, numberOrInitial } from './field'
import { id } from './text'
import { described, z } from './z'

export const monitorFields = fields({
  pluginFrames: {
    label: 'Plug-in delay',
    unit: 'frames',
    min: 0,
    max: 1_000_000,
    whole: true,
    initial: 0,
    help: 'What the plug-ins on the monitored path report.',
  },
  speakerDistance: {
    label: 'To the loudspeaker',
    unit: 'm',
    min: 0,
    max: 200,
    optional: true,
    help: 'Where the performer listens to a loudspeaker.',
  },
  blend: {
    label: 'Own signal against playback',
    unit: '%',
    min: 0,
    max: 100,
    optional: true,
    help: '0 is the own signal alone, 100 the playback alone; the middle is the usual start.',
  },
  playback: {
    label: 'Playback, average',
    unit: 'dBFS',
    min: -80,
    max: 0,
    initial: -20,
    help: 'Average level of what is played to the performer; a rough mix lies about −20 dBFS.',
  },
  volume: {
    label: 'Volume',
    unit: 'dB',
    min: -120,
    max: 0,
    optional: true,
    help: 'Of the headphone output; 0 is fully up.',
  },
  alsoHeard: {
    label: 'Other path',
    unit: 'dB',
    min: -60,
    max: 20,
    optional: true,
    help: 'Level of the other path against the chosen one, where both are heard.',
  },
})

export const monitor = z.strictObject({
  route: described(
    'What the performer listens to: through the host, or inside the interface.',
    z._default(z.enum(['software', 'direct']), 'software'),
  ),
  output: described('Output of the strip’s interface that feeds the performer.', z.optional(id)),
  pluginFrames: numberOrInitial(monitorFields.pluginFrames),
  speakerDistance: z.optional(number(monitorFields.speakerDistance)),
  blend: z.optional(number(monitorFields.blend)),
  playback: z.optional(number(monitorFields.playback)),
  side: described('Heard on one side only; without it in the middle.', z.optional(z.enum(['left', 'right']))),
  volume: z.optional(number(monitorFields.volume)),
  alsoHeard: z.optional(number(monitorFields.alsoHeard)),
  headphones: described('The headphones, a device of the session.', z.optional(id)),
})
export type Monitor = z.infer<typeof monitor>

/** What a performer listens for; each kind notices delay at another time. */
export const listenings = ['own-voice', 'wind', 'plucked', 'keys', 'drums', 'click-only'] as const
export type Listening = (typeof listenings)[number]

export const performerFields = fields({
  limit: {
    label: 'Limit',
    unit: 'ms',
    min: 0.5,
    max: 500,
    optional: true,
    help: 'The latest that this performer can work with.',
  },
})
export const performer = z.strictObject({
  listensTo: z.enum(listenings),
  limit: z.optional(number(performerFields.limit)),
})
export type Performer = z.infer<typeof performer>
