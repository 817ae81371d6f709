import type { AnalogueInput, Gear } from './gear'
import { traitsOf } from './gear'
import type { FieldTable } from './field'

/** The analogue input of a unit's port. */
export function analogueInput(gear: Gear, port: string | undefined): AnalogueInput | undefined {
  if (gear.kind !== 'interface') return undefined
  const input = gear.inputs.find((candidate) => candidate.id === port)
  return input && input.type !== 'digital' ? input : undefined
}

/** What a port of a unit occupies: its combined socket where it is one way into that, itself otherwise. */
export function socketOf(gear: Gear, port: string | undefined): string {
  const input = gear.kind === 'interface' ? gear.inputs.find((each) => each.id === port) : undefined
  return input && input.type !== 'digital' && input.socket !== undefined ? `socket ${input.socket}` : `port ${port}`
}

/** A box with one of its choices made: figures that it then no longer has leave it. */
export const withChoice = (gear: Gear, key: string, value: string): Gear =>
  trimmed(traitsOf(gear).choose(gear, key, value))

/** A box without the figures and sockets that its kind, as it stands, does not have. */
export function trimmed(gear: Gear): Gear {
  if (gear.kind === 'interface') return gear
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
