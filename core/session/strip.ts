import { fields, number, numberOrInitial } from './field'
import { monitor, performer } from './monitor'
import { settings, taps } from './settings'
import { id, name } from './text'
import { z } from './z'

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
  tolerance: z
    .strictObject({
      distance: z.number().min(0).max(100).optional(),
      gain: z.number().min(0).max(40).optional(),
      fader: z.number().min(0).max(40).optional(),
    })
    .optional()
    .describe('How far settings that were measured may be off: half of the width, m or dB.'),
  driven: z.boolean().optional().describe('Overdriven on purpose: its clipping is no fault.'),
})
export type Stage = z.infer<typeof stage> & {
  /** What readings say that it gives beyond what it is set to, dB. In no file: a belief has it, not a session. */
  readonly offset?: number
}

export const stripFields = fields({
  feed: { label: 'Send', unit: 'dB', min: -120, max: 20, initial: 0, help: 'Level into the bus; 0 at its mark.' },
  loudness: {
    label: 'Loudness wanted',
    unit: 'LUFS',
    min: -40,
    max: -5,
    optional: true,
    help: 'Of a stream: −23 in broadcasting (EBU R 128), −16 to −18 on the web (AES TD1008, from memory).',
  },
})

/** Where a strip goes besides its own end: into a bus, from behind one of its stages, before or after the fader there. */
export const feed = z.strictObject({
  to: id.describe('The bus.'),
  from: id.optional().describe('The stage behind which it leaves; the strip’s last where it is left out.'),
  tap: z.enum(taps).default('post').describe('Before or after the fader of that stage.'),
  gain: numberOrInitial(stripFields.feed),
})
export type Feed = z.infer<typeof feed>

/** How the sources of a bus sound: all at once as in music, or one after the other as on a panel. */
export const togetherWays = ['all', 'in-turn'] as const
export type Together = (typeof togetherWays)[number] | number

/** What one strip can feed at most. */
const MOST_FEEDS = 64

/** One source’s way, or a bus: where strips meet. A bus begins with the stage that they meet in. */
export const strip = z.strictObject({
  id,
  name,
  kind: z.enum(['channel', 'bus']).optional().describe('A channel where it is left out: it begins with a source.'),
  stages: z.array(stage).min(1).max(64),
  feeds: z.array(feed).max(MOST_FEEDS).optional(),
  loudness: number(stripFields.loudness).optional().describe('Of a bus that is streamed.'),
  together: z
    .union([z.enum(togetherWays), z.number().int().min(1).max(64)])
    .optional()
    .describe(
      'Of a bus: whether all its sources sound at once, in turn as on a panel, or how many at once. All where it is left out.',
    ),
  monitor: monitor.prefault({}),
  performer: performer.optional(),
})
export type Strip = z.infer<typeof strip>

export const isBus = ({ kind }: Pick<Strip, 'kind'>): boolean => kind === 'bus'
/** The strips that bring sound in: all but the busses. */
export const channelsOf = ({ strips }: { strips: readonly Strip[] }): readonly Strip[] =>
  strips.filter((each) => !isBus(each))
export const feedsOf = ({ feeds }: Pick<Strip, 'feeds'>): readonly Feed[] => feeds ?? NO_FEEDS
const NO_FEEDS: readonly Feed[] = []

/** Whether a strip comes to another, directly or over others. */
export const leadsTo = (strips: readonly Strip[], from: Strip, wanted: string): boolean =>
  feedsOf(from).some(({ to }) => {
    const next = strips.find(({ id }) => id === to)
    return to === wanted || (next !== undefined && leadsTo(strips, next, wanted))
  })

/** Two strips that carry one stereo sound: set alike. */
export const pair = z.strictObject({
  left: id,
  right: id,
  monitoring: z.enum(['panned', 'mono']).default('panned').describe('How the performer hears the pair.'),
})
export type Pair = z.infer<typeof pair>
