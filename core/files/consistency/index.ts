import type { Fault } from '../fault'
import type { Gear } from '../../gear'
import { customTarget } from '../../model/target'
import { gearFaults } from './gear-faults'
import { graphFaults } from './graph-faults'
import type { Parts } from './parts'
import { duplicates, fault, list, record } from './raw'
import type { Boxes } from './strip-faults'
import { stripFaults } from './strip-faults'

/** Which devices and strips are looked at in themselves; what they share with others is always looked at. */
export interface LookedAt {
  gear: (item: unknown) => boolean
  strip: (strip: unknown) => boolean
}

const EVERYTHING: LookedAt = { gear: () => true, strip: () => true }

/**
 * Faults between the parts of a file: names that nothing bears, settings outside their gear's range, an order of
 * stages that no signal can take.
 *
 * It looks at every part that is well-formed by itself, so that one reading of a file with a mistyped number in one
 * place and a missing gear in another names both.
 */
export function consistencyFaults(raw: unknown, parts: Parts, lookedAt: LookedAt = EVERYTHING): Fault[] {
  const root = record(raw)
  const gearItems = list(root.gear)
  const strips = list(root.strips)
  const boxes = boxesOf(gearItems, parts)
  return [
    ...duplicates(gearItems, ['gear']),
    ...gearItems.flatMap((item, i) => {
      const gear = lookedAt.gear(item) ? parts.gear(item) : null
      return gear ? gearFaults(gear, ['gear', i]) : []
    }),
    ...targetFaults(root.target),
    ...duplicates(strips, ['strips']),
    ...duplicateStages(strips),
    ...strips.flatMap((strip, i) => (lookedAt.strip(strip) ? stripFaults(strip, boxes, parts, ['strips', i]) : [])),
    ...graphFaults(strips, boxes),
    ...pairFaults(list(root.pairs), strips),
  ]
}

function boxesOf(items: unknown[], parts: Parts): Boxes {
  const boxes = new Map<string, Gear | null>()
  for (const item of items) {
    const { id } = record(item)
    if (typeof id === 'string' && !boxes.has(id)) boxes.set(id, parts.gear(item))
  }
  return boxes
}

/** Stage ids are unique in the whole session: findings and plans name a stage by its id. */
function duplicateStages(strips: unknown[]): Fault[] {
  const seen = new Set<string>()
  return strips.flatMap((strip, s) =>
    list(record(strip).stages).flatMap((stage, i) => {
      const id = record(stage).id
      if (typeof id !== 'string') return []
      if (!seen.has(id)) {
        seen.add(id)
        return []
      }
      return [
        fault(
          ['strips', s, 'stages', i, 'id'],
          'duplicate-id',
          `Another stage has the id "${id}". Stage ids are unique in a session.`,
        ),
      ]
    }),
  )
}

function targetFaults(raw: unknown): Fault[] {
  const parsed = customTarget.safeParse(raw)
  if (!parsed.success || parsed.data.low < parsed.data.high) return []
  return [
    fault(
      ['target', 'high'],
      'range',
      `The window’s upper edge, ${parsed.data.high} dBFS, must lie above its lower edge, ${parsed.data.low} dBFS.`,
    ),
  ]
}

/** A pair names two strips that are there, each strip in one pair at most. */
function pairFaults(pairs: unknown[], strips: unknown[]): Fault[] {
  const there = new Set(strips.map((strip) => record(strip).id))
  const taken = new Set<unknown>()
  return pairs.flatMap((pair, i) =>
    (['left', 'right'] as const).flatMap((side) => {
      const id = record(pair)[side]
      if (typeof id !== 'string') return []
      if (!there.has(id))
        return [
          fault(
            ['pairs', i, side],
            'no-such-strip',
            `No strip has the id "${id.slice(0, 64)}". Name one that is there, or remove the pair.`,
          ),
        ]
      if (taken.has(id))
        return [
          fault(['pairs', i, side], 'duplicate-id', `The strip "${id}" is paired already. A strip has one partner.`),
        ]
      taken.add(id)
      return []
    }),
  )
}
