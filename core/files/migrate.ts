import { list, record } from './consistency/raw'
import { gear as gearSchema, traitsOf, isInterface, trimmed, isLoudspeaker } from '../gear'
import { SESSION_VERSION } from '../session/session'
import { LONGEST_NOTES } from '../model/text'

/**
 * Brings a session file of an older version to the present one, before it is read. Pure: the given value stays as it is.
 *
 * Version 3 adds optional keys to version 2 and changes none.
 *
 * Version 1 let a plug-in, a host fader or an optical link have impedances, analogue limits and cables. They meant nothing
 * there and are left out; everything else is the same in all versions. What is faulty passes unchanged, for the reader
 * to name.
 */
export function migrate(raw: unknown): unknown {
  const root = record(raw)
  if (root.version === SESSION_VERSION) return withFeeds(raw)
  if (root.version === 2) return withFeeds({ ...root, version: SESSION_VERSION })
  if (root.version !== 1) return raw
  const cableless = new Set<unknown>()
  const gear = list(root.gear).map((item) => {
    const { data: box } = gearSchema.safeParse(item)
    if (box && !isInterface(box) && !traitsOf(box).settings(box).includes('cable')) cableless.add(box.id)
    return migrateGear(item)
  })
  const digitalPort = (unit: unknown, port: unknown) => {
    const found = record(list(root.gear).find((item) => record(item).id === unit))
    return record(list(found.inputs).find((input) => record(input).id === port)).type === 'digital'
  }
  const stageOf = (stage: unknown) => {
    const { gear: box, port, settings } = record(stage)
    if (!cableless.has(box) && !digitalPort(box, port)) return stage
    const { cable, capacitance, ...rest } = record(settings)
    return cable === undefined && capacitance === undefined ? stage : { ...record(stage), settings: rest }
  }
  return withFeeds({
    ...root,
    version: SESSION_VERSION,
    ...(Array.isArray(root.gear) && { gear }),
    ...(Array.isArray(root.strips) && {
      strips: root.strips.map((strip) =>
        Array.isArray(record(strip).stages)
          ? { ...record(strip), stages: list(record(strip).stages).map(stageOf) }
          : strip,
      ),
    }),
  })
}

/**
 * Until there were busses a strip said by two switches (`sends`) that it goes to the stream and into the room. Where the file
 * has such a bus they are feeds of it, at its mark and after the fader; where it has none, the notes say what they said.
 */
function withFeeds(raw: unknown): unknown {
  const root = record(raw)
  const strips = list(root.strips)
  if (!strips.some((strip) => record(strip).sends !== undefined)) return raw
  const told: string[] = []
  const changed = strips.map((each) => {
    const { sends, ...strip } = record(each)
    if (sends === undefined) return each
    const wanted = (['stream', 'room'] as const).filter((use) => record(sends)[use] === true)
    const feeds = wanted.flatMap((use) => {
      const bus = strips.find((one) => isBusFor(use, one, list(root.gear)))
      if (!bus) told.push(`“${String(strip.name)}” goes to the ${use}.`)
      return bus ? [{ to: record(bus).id, tap: 'post', gain: 0 }] : []
    })
    return feeds.length > 0 ? { ...strip, feeds: [...list(strip.feeds), ...feeds] } : strip
  })
  const before = typeof root.notes === 'string' ? root.notes : ''
  const notes = [before, ...told].filter((each) => each !== '').join('\n')
  return { ...root, strips: changed, ...(told.length > 0 && notes.length <= LONGEST_NOTES && { notes }) }
}

/** A bus with a loudness is a stream; one with a loudspeaker in it is for the room. */
function isBusFor(use: 'stream' | 'room', raw: unknown, gear: readonly unknown[]): boolean {
  const { kind, loudness, stages } = record(raw)
  if (kind !== 'bus') return false
  if (use === 'stream') return loudness !== undefined
  const loudspeakers = new Set(
    gear
      .map(record)
      .filter((item) => isLoudspeaker(item))
      .map(({ id }) => id),
  )
  return list(stages).some((stage) => loudspeakers.has(record(stage).gear))
}

/** The same for one box by itself, as a gear file of version 1 and the shelf hold it. */
export function migrateGear(item: unknown): unknown {
  const { data: box } = gearSchema.safeParse(item)
  return !box || isInterface(box) ? item : sameKeys(item, trimmed(box))
}

/** An item as it was written, without the keys that the trimmed box no longer has. */
function sameKeys(item: unknown, box: object): unknown {
  const [written, kept] = [record(item), record(box)]
  const part = (key: 'specs' | 'measured') =>
    written[key] === undefined
      ? {}
      : {
          [key]: Object.fromEntries(Object.entries(record(written[key])).filter(([name]) => name in record(kept[key]))),
        }
  const { plugs, ...rest } = written
  return { ...rest, ...(kept.plugs !== undefined && { plugs }), ...part('specs'), ...part('measured') }
}
