import { list, record } from './consistency/raw'
import { gear as gearSchema, traitsOf } from './gear'
import { trimmed } from './gear-access'
import { SESSION_VERSION } from './session'

/**
 * Brings a session file of version 1 to version 2, before it is read. Pure: the given value stays as it is.
 *
 * Version 1 let a plug-in, a host fader or an optical link have impedances, analogue limits and cables. They meant nothing
 * there and are left out; everything else is the same in both versions. What is faulty passes unchanged, for the reader
 * to name.
 */
export function migrate(raw: unknown): unknown {
  const root = record(raw)
  if (root.version !== 1) return raw
  const cableless = new Set<unknown>()
  const gear = list(root.gear).map((item) => {
    const { data: box } = gearSchema.safeParse(item)
    if (box && box.kind !== 'interface' && !traitsOf(box).settings(box).includes('cable')) cableless.add(box.id)
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
  return {
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
  }
}

/** The same for one box by itself, as a gear file of version 1 and the shelf hold it. */
export function migrateGear(item: unknown): unknown {
  const { data: box } = gearSchema.safeParse(item)
  return !box || box.kind === 'interface' ? item : sameKeys(item, trimmed(box))
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
