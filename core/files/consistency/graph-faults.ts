import type { Domain } from '../../model/domain'
import type { Fault } from '../fault'
import { traitsOf } from '../../gear'
import type { Path } from './raw'
import { fault, list, record } from './raw'
import type { Boxes } from './strip-faults'

/** Faults of what feeds what: a bus that is not there, one that is fed with another kind of signal, strips in a circle. */
export function graphFaults(strips: readonly unknown[], boxes: Boxes): Fault[] {
  const byId = new Map(strips.map((strip) => [record(strip).id, record(strip)]))
  return strips.flatMap((strip, i) =>
    list(record(strip).feeds).flatMap((feed, j) =>
      feedFaults(record(strip), record(feed), byId, boxes, ['strips', i, 'feeds', j]),
    ),
  )
}

type Raw = Record<string, unknown>

function feedFaults(strip: Raw, feed: Raw, byId: ReadonlyMap<unknown, Raw>, boxes: Boxes, path: Path): Fault[] {
  const { to, from } = feed
  if (typeof to !== 'string') return []
  const stages = list(strip.stages).map(record)
  const at = from === undefined ? stages.length - 1 : stages.findIndex((stage) => stage.id === from)
  if (at < 0)
    return [
      fault(
        [...path, 'from'],
        'no-such-stage',
        from === undefined
          ? 'This strip has no stage that this feed could leave from. Give it stages, or remove the feed.'
          : `This strip has no stage "${String(from).slice(0, 64)}". Name one of its own, or leave this out for its last.`,
      ),
    ]
  const bus = byId.get(to)
  const at_to = [...path, 'to']
  if (!bus)
    return [
      fault(
        at_to,
        'no-such-strip',
        `No strip has the id "${to.slice(0, 64)}". Name a bus that is there, or remove the feed.`,
      ),
    ]
  if (bus.kind !== 'bus')
    return [fault(at_to, 'not-a-bus', `"${to}" is a channel: it has a source of its own. Only a bus can be fed.`)]
  if (reaches(bus, strip.id, byId))
    return [
      fault(
        at_to,
        'circle',
        `"${to}" feeds "${String(strip.id)}" itself, directly or by way of others. Remove one of the feeds.`,
      ),
    ]
  return domainFaults(
    domainAt(stages[at], boxes, 'gives'),
    domainAt(record(list(bus.stages)[0]), boxes, 'takes'),
    at_to,
  )
}

/** Whether a strip comes to another by its feeds, or is it. */
function reaches(from: Raw, wanted: unknown, byId: ReadonlyMap<unknown, Raw>): boolean {
  const seen = new Set<Raw>()
  const open = [from]
  for (let strip = open.pop(); strip; strip = open.pop()) {
    if (strip.id === wanted) return true
    if (seen.has(strip)) continue
    seen.add(strip)
    for (const feed of list(strip.feeds)) {
      const next = byId.get(record(feed).to)
      if (next) open.push(next)
    }
  }
  return false
}

function domainAt(stage: Raw | undefined, boxes: Boxes, side: 'gives' | 'takes'): Domain | null {
  const gear = boxes.get(String(stage?.gear))
  return gear ? traitsOf(gear).domains(gear, String(stage?.port))[side] : null
}

const WORDS = { sound: 'sound', analogue: 'an analogue signal', digital: 'a digital signal' } as const

function domainFaults(gives: Domain | null, takes: Domain | null, path: Path): Fault[] {
  if (gives === null || takes === null || gives === takes) return []
  return [
    fault(
      path,
      'mixed-domain',
      `Here it gives ${WORDS[gives]}, but the bus takes ${WORDS[takes]}. Feed it from another stage, or start the bus with a stage that takes this.`,
    ),
  ]
}
