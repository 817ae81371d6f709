import type { FieldTable } from '../model/field'
import type { Gear } from './kinds'
import { traitsOf } from './kinds'

/** A box with one of its choices made: figures that it then no longer has leave it. */
export const withChoice = (gear: Gear, key: string, value: string): Gear =>
  trimmed(traitsOf(gear).choose(gear, key, value))

/** A box without the figures and sockets that its kind, as it stands, does not have. */
export function trimmed(gear: Gear): Gear {
  // The figures of an interface stand at its ports.
  if (!('specs' in gear)) return gear
  const traits = traitsOf(gear)
  const { specs, measured, ...rest } = gear as Gear & { specs: object; measured?: object; plugs?: object }
  const own = traits.fields(gear)
  const kept = only(specs, own, traits.allFields)
  const left = measured && only(measured, own, traits.allFields)
  if (traits.sockets(gear).length === 0) delete rest.plugs
  return { ...rest, specs: kept, ...(left && Object.keys(left).length > 0 && { measured: left }) } as Gear
}

/** The entries that are fields of the box as it stands, and those that are no numbers of its kind at all. */
const only = (values: object, own: FieldTable, all: FieldTable): object =>
  Object.fromEntries(Object.entries(values).filter(([key]) => key in own || !(key in all)))
