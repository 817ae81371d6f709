import { fields, number, numberOrInitial } from './field'
import { monitor, performer } from './monitor'
import { settings, taps } from './settings'
import { id, name } from './text'
import { described, z } from './z'

export const stage = z.strictObject({
  id,
  gear: described('The gear that stands here.', id),
  port: described('Which input of it, where it has several.', z.optional(id)),
  settings: z._default(settings, {}),
  locked: described(
    'Gains that the planner leaves alone.',
    z.optional(z.array(z.enum(['gain', 'fader'])).check(z.maxLength(2))),
  ),
  tolerance: described(
    'How far settings that were measured may be off: half of the width, m or dB.',
    z.optional(
      z.strictObject({
        distance: z.optional(z.number().check(z.minimum(0), z.maximum(100))),
        gain: z.optional(z.number().check(z.minimum(0), z.maximum(40))),
        fader: z.optional(z.number().check(z.minimum(0), z.maximum(40))),
      }),
    ),
  ),
  driven: described('Overdriven on purpose: its clipping is no fault.', z.optional(z.boolean())),
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
  to: described('The bus.', id),
  from: described('The stage behind which it leaves; the strip’s last where it is left out.', z.optional(id)),
  tap: described('Before or after the fader of that stage.', z._default(z.enum(taps), 'post')),
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
  kind: described('A channel where it is left out: it begins with a source.', z.optional(z.enum(['channel', 'bus']))),
  stages: z.array(stage).check(z.minLength(1), z.maxLength(64)),
  feeds: z.optional(z.array(feed).check(z.maxLength(MOST_FEEDS))),
  loudness: described('Of a bus that is streamed.', z.optional(number(stripFields.loudness))),
  together: described(
    'Of a bus: whether all its sources sound at once, in turn as on a panel, or how many at once. All where it is left out.',
    z.optional(z.union([z.enum(togetherWays), z.int().check(z.minimum(1), z.maximum(64))])),
  ),
  monitor: z.prefault(monitor, {}),
  performer: z.optional(performer),
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
  monitoring: described('How the performer hears the pair.', z._default(z.enum(['panned', 'mono']), 'panned')),
})
export type Pair = z.infer<typeof pair>
