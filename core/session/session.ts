import { z } from './z'
import { fields, number } from './field'
import { gear } from './gear'
import { settings } from './settings'
import { room, system } from './system'
import { DEFAULT_SCHOOL, target } from './target'
import { id, name, notes } from './text'

export const SESSION_FORMAT = 'remetra.session'
export const SESSION_VERSION = 1

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
    label: 'Blend',
    unit: '%',
    min: 0,
    max: 100,
    optional: true,
    help: '0 is the input alone, 100 the playback alone; the middle is the usual start.',
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
  route: z
    .enum(['software', 'direct'])
    .default('software')
    .describe('What the performer listens to: through the host, or inside the interface.'),
  output: id.optional().describe('Output of the strip’s interface that feeds the performer.'),
  pluginFrames: number(monitorFields.pluginFrames).default(0 as never),
  speakerDistance: number(monitorFields.speakerDistance).optional(),
  blend: number(monitorFields.blend).optional(),
  volume: number(monitorFields.volume).optional(),
  alsoHeard: number(monitorFields.alsoHeard).optional(),
  headphones: id.optional().describe('The headphones, a box of the session.'),
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
  limit: number(performerFields.limit).optional(),
})
export type Performer = z.infer<typeof performer>

/** Into which mixes of the desk a strip goes besides the recording. */
export const sends = z.strictObject({ stream: z.boolean().default(false), room: z.boolean().default(false) })

export const stage = z.strictObject({
  id,
  gear: id.describe('The gear that stands here.'),
  port: id.optional().describe('Which input of it, where it has several.'),
  settings: settings.default({}),
  locked: z
    .array(z.enum(['gain', 'fader']))
    .max(2)
    .optional()
    .describe('Gains that the planner leaves alone.'),
  driven: z.boolean().optional().describe('Overdriven on purpose: its clipping is no fault.'),
})
export type Stage = z.infer<typeof stage>

export const strip = z.strictObject({
  id,
  name,
  stages: z.array(stage).min(1).max(64),
  monitor: monitor.prefault({}),
  performer: performer.optional(),
  sends: sends.optional(),
})
export type Strip = z.infer<typeof strip>

/** Two strips that carry one stereo sound: set alike. */
export const pair = z.strictObject({
  left: id,
  right: id,
  monitoring: z.enum(['panned', 'mono']).default('panned').describe('How the performer hears the pair.'),
})
export type Pair = z.infer<typeof pair>

/** The session file, version 1. */
export const session = z.strictObject({
  format: z.literal(SESSION_FORMAT),
  version: z.literal(SESSION_VERSION),
  id,
  name,
  notes: notes.default(''),
  system: system.prefault({}),
  room: room.prefault({}),
  target: target.default(DEFAULT_SCHOOL),
  gear: z.array(gear).max(500),
  strips: z.array(strip).min(1).max(200),
  pairs: z.array(pair).max(100).optional(),
})
export type Session = z.infer<typeof session>
