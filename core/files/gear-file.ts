import type { Fault } from './fault'
import { describeReceived } from './fault'
import type { Gear } from '../gear'
import { gear as schema } from '../gear'
import { migrateGear } from './migrate'
import { readGear } from './read-gear'
import { z } from '../model/z'

export const GEAR_FORMAT = 'remetra.gear'
export const GEAR_VERSION = 2

/** Items that one file may hold: far above any shelf. */
const MOST_ITEMS = 2000

/** A gear file as JSON Schema (draft 2020-12). */
export const gearFileJsonSchema = () =>
  z.toJSONSchema(
    z.strictObject({
      format: z.literal(GEAR_FORMAT),
      version: z.literal(GEAR_VERSION),
      items: z.array(schema).check(z.maxLength(MOST_ITEMS)),
    }),
    { io: 'input' },
  )

export type GearFileReading = { ok: true; items: Gear[] } | { ok: false; faults: Fault[] }

/** Reads a file of gear items from parsed JSON; all faults at once, nothing taken where there is one. */
export function readGearFile(raw: unknown): GearFileReading {
  const refuse = (path: string, code: string, message: string): GearFileReading => ({
    ok: false,
    faults: [{ path, code, message }],
  })
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw))
    return refuse(
      '',
      'other-format',
      `A gear file holds one object; this one holds ${describeReceived(raw)}. Choose a gear file.`,
    )
  const { format, version, items, ...rest } = raw as Record<string, unknown>
  if (format !== GEAR_FORMAT)
    return refuse(
      'format',
      'other-format',
      `This file’s format is ${describeReceived(format)}, not "${GEAR_FORMAT}". Choose a gear file.`,
    )
  if (version !== 1 && version !== GEAR_VERSION)
    return refuse(
      'version',
      'no-such-version',
      `The version is ${describeReceived(version)}; this program knows ${GEAR_VERSION}. Nothing was changed.`,
    )
  const unknown = Object.keys(rest)[0]
  if (unknown !== undefined)
    return refuse(unknown.slice(0, 64), 'unknown-key', 'This key is not known. Remove it, or check its spelling.')
  if (!Array.isArray(items))
    return refuse('items', 'wrong-type', `Got ${describeReceived(items)}. Give a list of gear.`)
  if (items.length > MOST_ITEMS)
    return refuse('items', 'too-big', `${items.length} items; a gear file has at most ${MOST_ITEMS}. Split it.`)
  const seen = new Set<string>()
  const readings = items.map((item, i) => {
    const reading = readGear(version === 1 ? migrateGear(item) : item)
    const faults = reading.ok
      ? []
      : reading.faults.map((fault) => ({ ...fault, path: `items[${i}]${fault.path ? `.${fault.path}` : ''}` }))
    if (reading.ok && seen.has(reading.gear.id))
      faults.push({
        path: `items[${i}].id`,
        code: 'duplicate-id',
        message: `The id "${reading.gear.id}" is used more than once here. Give each its own.`,
      })
    if (reading.ok) seen.add(reading.gear.id)
    return { reading, faults }
  })
  const faults = readings.flatMap((each) => each.faults).slice(0, 100)
  return faults.length > 0
    ? { ok: false, faults }
    : { ok: true, items: readings.flatMap(({ reading }) => (reading.ok ? [reading.gear] : [])) }
}

/** The text of a gear file: keys in the order of the schema, so that reading and writing again gives the same bytes. */
export const writeGearFile = (items: readonly Gear[]): string =>
  `${JSON.stringify({ format: GEAR_FORMAT, version: GEAR_VERSION, items: items.map((item) => schema.parse(item)) }, null, 2)}\n`
