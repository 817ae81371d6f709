import { allAssumed } from './assumed'
import { initialSettings } from './complete'
import type { Gear } from './gear'
import { traitsOf } from './gear'
import { nextId, nextName } from './naming'
import { readGear } from './read-gear'
import type { Session } from './session'
import type { Stage, Strip } from './strip'
import { feedsOf } from './strip'

/** What a bus is for. */
export type BusUse = 'group' | 'stream' | 'room'

export const busUses: Readonly<Record<BusUse, { title: string; words: string }>> = {
  group: { title: 'Group of the desk', words: 'Channels meet in a group; one fader for all of them.' },
  stream: { title: 'Stream, in the host', words: 'A fader and a limiter, with the loudness that is wanted.' },
  room: { title: 'Loudspeakers', words: 'A fader and loudspeakers, heard in the room.' },
}

const FADER = { specs: { gainMin: -90, gainMax: 10 } }

/** What stands in a bus of each use to begin with, with usual figures (common practice, no source). */
const BOXES: Readonly<Record<BusUse, readonly { kind: string; name: string; more: object }[]>> = {
  group: [
    {
      kind: 'fader',
      name: 'Group fader',
      more: {
        place: 'desk',
        specs: { ...FADER.specs, maxInput: 22, maxOutput: 22, outputNoise: -90, outputImpedance: 150 },
      },
    },
  ],
  stream: [
    { kind: 'fader', name: 'Stream fader', more: { place: 'host', arithmetic: 'float', ...FADER } },
    {
      kind: 'processor',
      name: 'Stream limiter',
      more: { domain: 'digital', arithmetic: 'float', blocks: [{ type: 'limiter', ceiling: -2 }], specs: {} },
    },
  ],
  room: [
    {
      kind: 'fader',
      name: 'Room fader',
      more: {
        place: 'desk',
        specs: { ...FADER.specs, maxInput: 22, maxOutput: 22, outputNoise: -90, outputImpedance: 150 },
      },
    },
    {
      kind: 'loudspeaker',
      name: 'My loudspeakers',
      more: {
        specs: {
          sensitivity: 100,
          maxSpl: 115,
          maxInput: 20,
          inputImpedance: 20_000,
          gainMin: -60,
          gainMax: 6,
          count: 2,
        },
      },
    },
  ],
}

/** A web stream's loudness, LUFS (AES TD1008, from memory). */
const WEB = -16

/** A session with one more bus, that nothing feeds yet. */
export function addBus(session: Session, use: BusUse): Session {
  const ids = new Set(session.gear.map(({ id }) => id))
  const names = new Set(session.gear.map(({ name }) => name))
  const stageIds = new Set(session.strips.flatMap(({ stages }) => stages.map(({ id }) => id)))
  const id = nextId(use, new Set(session.strips.map((strip) => strip.id)))
  const gear: Gear[] = []
  const stages = BOXES[use].map(({ kind, name, more }, i): Stage => {
    const boxId = nextId(`${use}-${kind}`, ids)
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
  const named = nextName(
    { group: 'Group', stream: 'Stream', room: 'Room' }[use],
    new Set(session.strips.map(({ name }) => name)),
  )
  const bus: Strip = {
    id,
    name: named,
    kind: 'bus',
    stages,
    monitor: { route: 'software', pluginFrames: 0 as Strip['monitor']['pluginFrames'] },
    ...(use === 'stream' && { loudness: WEB }),
  }
  return { ...session, gear: [...session.gear, ...gear], strips: [...session.strips, bus] }
}

/** Boxes behind which a signal is too weak for a bus. */
const BEFORE_LINE: ReadonlySet<string> = new Set(['microphone', 'pad', 'di-box', 'booster', 'electric-source'])

/**
 * From where a strip can feed a bus: the last stage behind which it gives what the bus takes.
 * @returns `undefined` for its last stage; `null` where none does, or the bus leads to the strip itself
 */
export function feedFrom(session: Session, strip: Strip, bus: Strip): string | undefined | null {
  const boxes = new Map(session.gear.map((item) => [item.id, item]))
  const domainsOf = ({ gear, port }: Stage) => {
    const box = boxes.get(gear)
    return box ? traitsOf(box).domains(box, port) : null
  }
  const first = bus.stages[0]
  const takes = first && domainsOf(first)?.takes
  if (strip.id === bus.id || leadsTo(session, bus, strip.id)) return null
  const at = strip.stages.findLastIndex((stage, i) => {
    const kind = boxes.get(stage.gear)?.kind ?? ''
    const isLine = !BEFORE_LINE.has(kind) || (kind === 'electric-source' && i === strip.stages.length - 1)
    return isLine && domainsOf(stage)?.gives === takes
  })
  if (at < 0) return null
  return at === strip.stages.length - 1 ? undefined : strip.stages[at]?.id
}

const leadsTo = (session: Session, from: Strip, wanted: string): boolean =>
  feedsOf(from).some(({ to }) => {
    const next = session.strips.find(({ id }) => id === to)
    return to === wanted || (next !== undefined && leadsTo(session, next, wanted))
  })
