import { blankGear, applyChanges, startSession } from '../../edits'
import { readSession } from '../../files'
import type { Gear } from '../../gear'
import { isElectricSource, isPreamp, isSoundSource } from '../../gear'
import type { Strip } from '../../model'
import type { Session } from '../../session'
import type { StartAnswers } from '../../edits'
import { asChange } from '../../plan/as-change'
import { planSession } from '../../plan/plan-session'

/** A chain to plant a fault in: how large it is, and how it is made. */
export interface ChainTemplate {
  readonly title: string
  /** 1: one box and its gain; 2: a box between; 3: a whole desk; 4: a desk and a room. */
  readonly grade: 1 | 2 | 3 | 4
  readonly make: (random: () => number) => Session
}

const between = (random: () => number, low: number, high: number, step = 1) =>
  Math.round((low + (high - low) * random()) / step) * step

const NAMES = ['Guide', 'Cello', 'Harmonium', 'Fiddle', 'Choir', 'Reader', 'Flute', 'Whistle'] as const

/** A started chain with figures drawn around the usual ones, planned. */
function started(
  random: () => number,
  answers: StartAnswers,
  more: (session: Session) => unknown = (session) => session,
): Session {
  const [session] = [startSession('planted', 'Trainer', answers)]
  const drawn = {
    ...session,
    room: { ...session.room, ambient: between(random, 16, 22) },
    gear: session.gear.map((item) => varied(item, random)),
    system: { ...session.system, sampleRate: 48_000, bufferFrames: 128, driver: 'exclusive' },
  }
  const reading = readSession(more(drawn as unknown as Session))
  if (!reading.ok)
    throw new Error(
      `The chain is faulty: ${reading.faults.map(({ path, message }) => `${path} ${message}`).join('; ')}`,
    )
  const { settings } = planSession(reading.session)
  return applyChanges(reading.session, settings.map(asChange))
}

function varied(item: Gear, random: () => number): Gear {
  if (isSoundSource(item))
    return { ...item, specs: { ...item.specs, level: (item.specs.level + between(random, -4, 6)) as never } }
  if (isElectricSource(item))
    return { ...item, specs: { ...item.specs, level: (item.specs.level + between(random, -4, 2)) as never } }
  return item
}

const withBehind = (session: Session, gear: Gear, settings: object = {}): unknown => ({
  ...session,
  gear: [...session.gear, gear],
  strips: session.strips.map((strip, i) =>
    i > 0 ? strip : { ...strip, stages: [...strip.stages, { id: `${strip.id}-behind`, gear: gear.id, settings }] },
  ),
})

const named = (random: () => number, count: number) => {
  const from = Math.floor(random() * NAMES.length)
  return Array.from({ length: count }, (_, i) => NAMES[(from + i) % NAMES.length] as string).join(', ')
}

/** A preamp, plug-in or slider with the usual figures and a name. */
const box = (kind: Parameters<typeof blankGear>[0], id: string, name: string, part: object = {}): Gear =>
  ({ ...blankGear(kind, id, name), ...part }) as Gear

export const chainTemplates = {
  'condenser': {
    title: 'A condenser into the interface',
    grade: 1,
    make: (random) =>
      started(random, { what: 'voice', names: named(random, 1), distance: between(random, 0.2, 0.6, 0.1) }),
  },
  'moving-coil': {
    title: 'A moving coil into the interface',
    grade: 1,
    make: (random) =>
      started(random, {
        what: 'voice',
        names: named(random, 1),
        microphone: 'moving-coil',
        distance: between(random, 0.05, 0.15, 0.05),
      }),
  },
  'guitar': {
    title: 'A guitar into an instrument input',
    grade: 1,
    make: (random) => started(random, { what: 'instrument-lead', names: 'Guitar' }),
  },
  'keys': {
    title: 'Keys into a line input',
    grade: 1,
    make: (random) => started(random, { what: 'keys', names: 'Keys' }),
  },
  'slider': {
    title: 'A condenser, and the system’s slider behind',
    grade: 1,
    make: (random) =>
      started(random, { what: 'voice', names: named(random, 1), distance: 0.3 }, (session) =>
        withBehind(
          session,
          box('fader', 'slider', 'System slider', { place: 'system', specs: { gainMin: -40, gainMax: 30 } }),
          { gain: 0 },
        ),
      ),
  },
  'preamp': {
    title: 'A condenser through a preamp of its own',
    grade: 2,
    make: (random) => started(random, { what: 'voice', names: named(random, 1), chain: 'preamp', distance: 0.3 }),
  },
  'noisy-preamp': {
    title: 'A moving coil through an old preamp',
    grade: 2,
    make: (random) =>
      started(
        random,
        { what: 'voice', names: named(random, 1), microphone: 'moving-coil', chain: 'preamp', distance: 0.1 },
        (session) => ({
          ...session,
          gear: session.gear.map((item) =>
            isPreamp(item) ? { ...item, specs: { ...item.specs, outputNoise: -80 } } : item,
          ),
        }),
      ),
  },
  'di': {
    title: 'A guitar through a DI box and a preamp',
    grade: 2,
    make: (random) => started(random, { what: 'instrument-lead', names: 'Guitar', chain: 'preamp' }),
  },
  'host': {
    title: 'A condenser, and plug-ins in the host',
    grade: 2,
    make: (random) =>
      started(random, { what: 'voice', names: named(random, 1), distance: 0.3 }, (session) =>
        withBehind(
          session,
          box('processor', 'plug-in', 'Channel plug-in', {
            domain: 'digital',
            arithmetic: 'fixed',
            blocks: [
              { type: 'compressor', on: false, threshold: -30, ratio: 4, makeUp: 0 },
              { type: 'expander', on: false, threshold: -40, ratio: 4, range: 40 },
              { type: 'gain', on: true, gain: 0 },
            ],
            specs: { gainMin: -24, gainMax: 24 },
          }),
          { gain: 0 },
        ),
      ),
  },
  'wireless': {
    title: 'A hand microphone on a wireless link',
    grade: 2,
    make: (random) =>
      started(
        random,
        { what: 'voice', names: named(random, 1), microphone: 'moving-coil', distance: 0.1 },
        (session) => {
          const link = box('link', 'link', 'Wireless link', { level: 'mic', specs: { latency: 3, dynamicRange: 110 } })
          return {
            ...session,
            gear: [...session.gear, link],
            strips: session.strips.map((strip) => ({
              ...strip,
              stages: [
                ...strip.stages.slice(0, 2),
                { id: 'strip-1-link', gear: 'link', settings: {} },
                ...strip.stages.slice(2),
              ],
            })),
          }
        },
      ),
  },
  'two-heard': {
    title: 'Two microphones on one instrument',
    grade: 2,
    make: (random) =>
      started(random, { what: 'instrument-mic', names: 'Cello near, Cello far', distance: 0.4 }, (session) => {
        const [near, far] = session.strips as [Strip, Strip]
        const source = near.stages[0]?.gear
        return {
          ...session,
          gear: session.gear.filter(({ id }) => id !== far.stages[0]?.gear),
          strips: [
            near,
            {
              ...far,
              stages: far.stages.map((stage, i) =>
                i === 0 ? { ...stage, gear: source, settings: { distance: 1.2 } } : stage,
              ),
            },
          ],
        }
      }),
  },
  'desk': {
    title: 'A desk with four channels',
    grade: 3,
    make: (random) => started(random, { what: 'many', names: named(random, 4), chain: 'desk', distance: 0.3 }),
  },
  'room': {
    title: 'A desk, a group and loudspeakers in the room',
    grade: 4,
    make: (random) =>
      started(
        random,
        { what: 'many', names: named(random, 4), chain: 'desk', microphone: 'moving-coil', distance: 0.1 },
        (session) => ({
          ...session,
          room: {
            ...session.room,
            layout: { sourceToListener: 6, microphoneToLoudspeaker: 5, loudspeakerToListener: 5, wanted: 6 },
          },
          gear: [
            ...session.gear,
            box('fader', 'group', 'Desk group', {
              place: 'desk',
              specs: { gainMin: -60, gainMax: 10, maxInput: 22, maxOutput: 22 },
            }),
            box('loudspeaker', 'loudspeakers', 'Room loudspeakers'),
          ],
          strips: [
            ...session.strips.map((strip) => ({
              ...strip,
              feeds: [{ to: 'room', from: strip.stages.at(-2)?.id, tap: 'post', gain: -30 }],
            })),
            {
              id: 'room',
              name: 'Room',
              kind: 'bus',
              stages: [
                { id: 'room-1', gear: 'group', settings: { gain: 0 } },
                { id: 'room-2', gear: 'loudspeakers', settings: { gain: 0, distance: 5 } },
              ],
            },
          ],
        }),
      ),
  },
} as const satisfies Record<string, ChainTemplate>

export type TemplateId = keyof typeof chainTemplates
export const templateIds = Object.keys(chainTemplates) as TemplateId[]
export const templateOf = (id: TemplateId): ChainTemplate => chainTemplates[id]
