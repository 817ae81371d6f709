import type { StatedTolerance } from '../model'
import { metres } from '../units'
import type { Assuming } from '../model/assumed'
import { noLongerAssumed } from '../model/assumed'
import type { Measurement } from '../model/measurement'
import { numbers } from '../model/field'
import type {
  AnalogueInput,
  AudioInterface,
  Gear,
  GearKind,
  GearOf,
  InterfaceLatency,
  Plug,
  SoundSource,
} from '../gear'
import { latencySpecs, traitsOf } from '../gear'
import type { Session } from '../session/session'
import type { Strip } from '../model/strip'

const latencySchema = numbers(latencySpecs)

/** Some of an object's values as they are typed: numbers whose unit the field says. The reader puts the units on. */
export type PlainPart<T> = {
  [K in keyof T]?: Extract<T[K], number> extends never ? T[K] : Exclude<T[K], number> | number
}

/** An object with some of its values replaced by typed ones. The only place where a number gets its unit unread. */
export const withPart = <T extends object>(whole: T, part: PlainPart<T>): T => ({ ...whole, ...part }) as T

/** Edits of a session: each gives a new one and shares what it does not touch. None checks; `readEdited` does. */

export function editGear<K extends GearKind>(
  session: Session,
  id: string,
  kind: K,
  edit: (gear: GearOf<K>) => GearOf<K>,
): Session {
  return {
    ...session,
    gear: session.gear.map((gear) => (gear.id === id && gear.kind === kind ? edit(gear as GearOf<K>) : gear)),
  }
}

export const editStrip = (session: Session, id: string, edit: (strip: Strip) => Strip): Session => ({
  ...session,
  strips: session.strips.map((strip) => (strip.id === id ? edit(strip) : strip)),
})

/** A unit with one of its analogue inputs changed. */
export const withInput = (
  unit: AudioInterface,
  port: string,
  edit: (input: AnalogueInput) => AnalogueInput,
): AudioInterface => ({
  ...unit,
  inputs: unit.inputs.map((input) => (input.id === port && input.type !== 'digital' ? edit(input) : input)),
})

/** A unit with one of its latency figures given; the others are there from then on, as nothing. */
export const withLatency = (
  unit: AudioInterface,
  key: keyof InterfaceLatency,
  value: number | undefined,
): AudioInterface => ({
  ...unit,
  latency: latencySchema.parse({ ...unit.latency, [key]: value ?? latencySpecs[key].initial }),
})

/** A source of another size; a point without one. */
export const withSize = (source: SoundSource, size: number | undefined): SoundSource => ({
  ...source,
  size: size === undefined ? undefined : metres(size),
})

/** A box with one of its sockets described. */
export const withPlug = (gear: Gear, side: 'in' | 'out', plug: Plug | undefined): Gear =>
  'plugs' in gear || traitsOf(gear).sockets(gear).length > 0
    ? ({ ...gear, plugs: { ...('plugs' in gear ? gear.plugs : undefined), [side]: plug } } as Gear)
    : gear

export const editInput = (
  session: Session,
  unit: string,
  port: string,
  edit: (input: AnalogueInput) => AnalogueInput,
): Session => editGear(session, unit, 'interface', (gear) => withInput(gear, port, edit))

/** Something with printed and measured specifications: a source, a microphone, an input, an output. */
export interface Specified extends Assuming {
  specs: object
  measured?: object | undefined
  tolerance?: Record<string, StatedTolerance> | undefined
}

/** A printed value changed; `undefined` takes an optional one out. */
export const withSpec = <T extends Specified>(owner: T, key: string, value: number | string | undefined): T =>
  noLongerAssumed({ ...owner, specs: { ...owner.specs, [key]: value } }, key)

/** A maker’s tolerance entered, or taken out with `undefined`. */
export function withTolerance<T extends Specified>(owner: T, key: string, stated: StatedTolerance | undefined): T {
  const { [key]: _, ...rest } = owner.tolerance ?? {}
  const tolerance = stated === undefined ? rest : { ...rest, [key]: stated }
  return { ...owner, tolerance: Object.keys(tolerance).length > 0 ? tolerance : undefined }
}

/** A measurement entered, or taken out with `undefined`; the last one out takes the object with it. */
export function withMeasurement<T extends Specified>(owner: T, key: string, measurement: Measurement | undefined): T {
  const rest = Object.fromEntries(Object.entries(owner.measured ?? {}).filter(([each]) => each !== key))
  const measured = measurement ? { ...rest, [key]: measurement } : rest
  return { ...owner, measured: Object.keys(measured).length > 0 ? measured : undefined }
}
