import { initialSettings } from '../gear'
import { allAssumed } from '../model/assumed'
import type { Change } from './change'
import { applyChanges } from './change'
import { feedFrom } from '../session/feed-from'
import type { Gear } from '../gear'
import { nextId, nextName } from '../model/naming'
import { readGear } from '../files/read-gear'
import type { Session } from '../session/session'
import type { Stage, Strip } from '../model/strip'
import { channelsOf, isBus } from '../model/strip'

/** What busses are for. */
export type BusUse = 'group' | 'stream' | 'room' | 'sub-and-tops'

export const busUses: Readonly<Record<BusUse, { title: string; words: string }>> = {
  'group': { title: 'Group of the desk', words: 'Channels meet in a group; one fader for all of them.' },
  'stream': { title: 'Stream, in the host', words: 'A fader and a limiter, with the loudness that is wanted.' },
  'room': { title: 'Loudspeakers', words: 'A fader and loudspeakers, heard in the room.' },
  'sub-and-tops': {
    title: 'Subwoofer and tops',
    words: 'Two busses, each with a fader and loudspeakers of its band, to be matched in Monitoring.',
  },
}

interface BusPlan {
  id: string
  name: string
  boxes: readonly { kind: string; name: string; more: object }[]
  loudness?: number
}

const FADER = { specs: { gainMin: -90, gainMax: 10 } }
const deskFader = (name: string) => ({
  kind: 'fader',
  name,
  more: {
    place: 'desk',
    specs: { ...FADER.specs, maxInput: 22, maxOutput: 22, outputNoise: -90, outputImpedance: 150 },
  },
})
const loudspeaker = (name: string, count: number, more: object = {}) => ({
  kind: 'loudspeaker',
  name,
  more: {
    ...more,
    specs: { sensitivity: 100, maxSpl: 115, maxInput: 20, inputImpedance: 20_000, gainMin: -60, gainMax: 6, count },
  },
})

/** A web stream's loudness, LUFS (AES TD1008, from memory). */
const WEB = -16

/** The busses of each use as they begin, with usual figures (common practice, no source). */
const BUSSES: Readonly<Record<BusUse, readonly BusPlan[]>> = {
  'group': [{ id: 'group', name: 'Group', boxes: [deskFader('Group fader')] }],
  'stream': [
    {
      id: 'stream',
      name: 'Stream',
      boxes: [
        { kind: 'fader', name: 'Stream fader', more: { place: 'host', arithmetic: 'float', ...FADER } },
        {
          kind: 'processor',
          name: 'Stream limiter',
          more: { domain: 'digital', arithmetic: 'float', blocks: [{ type: 'limiter', ceiling: -2 }], specs: {} },
        },
      ],
      loudness: WEB,
    },
  ],
  'room': [{ id: 'room', name: 'Room', boxes: [deskFader('Room fader'), loudspeaker('My loudspeakers', 2)] }],
  'sub-and-tops': [
    {
      id: 'sub',
      name: 'Subwoofer',
      boxes: [deskFader('Subwoofer fader'), loudspeaker('My subwoofer', 1, { band: 'sub' })],
    },
    { id: 'tops', name: 'Tops', boxes: [deskFader('Tops fader'), loudspeaker('My tops', 2, { band: 'top' })] },
  ],
}

/** A session with the busses of a use, that nothing feeds yet. */
export const addBus = (session: Session, use: BusUse): Session => BUSSES[use].reduce(withBus, session)

function withBus(session: Session, plan: BusPlan): Session {
  const ids = new Set(session.gear.map(({ id }) => id))
  const names = new Set(session.gear.map(({ name }) => name))
  const stageIds = new Set(session.strips.flatMap(({ stages }) => stages.map(({ id }) => id)))
  const id = nextId(plan.id, new Set(session.strips.map((strip) => strip.id)))
  const gear: Gear[] = []
  const stages = plan.boxes.map(({ kind, name, more }, i): Stage => {
    const boxId = nextId(`${plan.id}-${kind}`, ids)
    const boxName = nextName(name, names)
    ids.add(boxId)
    names.add(boxName)
    const reading = readGear({ id: boxId, kind, name: boxName, ...allAssumed(more as { specs: object }) })
    if (!reading.ok) throw new Error(`The usual ${kind} of a bus is faulty: ${reading.faults[0]?.message}`)
    gear.push(reading.gear)
    const stage = nextId(`${id}-${i + 1}`, stageIds)
    stageIds.add(stage)
    return { id: stage, gear: boxId, settings: initialSettings(reading.gear) }
  })
  const bus: Strip = {
    id,
    name: nextName(plan.name, new Set(session.strips.map(({ name }) => name))),
    kind: 'bus',
    stages,
    monitor: { route: 'software', pluginFrames: 0 as Strip['monitor']['pluginFrames'] },
    ...(plan.loudness !== undefined && { loudness: plan.loudness }),
  }
  return { ...session, gear: [...session.gear, ...gear], strips: [...session.strips, bus] }
}

/**
 * The same, with a send from every channel that gives what they take; a bus that no channel can feed is fed by the busses that can, as
 * a stream is by the group that takes all channels into the host.
 */
export function addFedBus(session: Session, use: BusUse): Session {
  const added = addBus(session, use)
  const sends = added.strips.slice(session.strips.length).flatMap((bus) => {
    const fromChannels = sendsFrom(added, channelsOf(session), bus)
    return fromChannels.length > 0 ? fromChannels : sendsFrom(added, session.strips.filter(isBus), bus)
  })
  return applyChanges(added, sends)
}

const sendsFrom = (session: Session, strips: readonly Strip[], bus: Strip): Change[] =>
  strips.flatMap((strip): Change[] => {
    const from = feedFrom(session, strip, bus)
    return from === null ? [] : [{ do: 'feed', strip: strip.id, to: bus.id, set: from === undefined ? {} : { from } }]
  })
