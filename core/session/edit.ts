import type { Measurement } from './field'
import type { AnalogueInput, GearKind, GearOf } from './gear'
import type { Session, Strip } from './session'

/** Edits of a session: each gives a new one and shares what it does not touch. None checks; `readSession` does. */

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

export const editInput = (
  session: Session,
  unit: string,
  port: string,
  edit: (input: AnalogueInput) => AnalogueInput,
): Session =>
  editGear(session, unit, 'interface', (gear) => ({
    ...gear,
    inputs: gear.inputs.map((input) => (input.id === port && input.type !== 'digital' ? edit(input) : input)),
  }))

/** Something with printed and measured specifications: a source, a microphone, an input, an output. */
export interface Specified {
  specs: object
  measured?: object | undefined
}

/** A printed value changed; `undefined` takes an optional one out. */
export const withSpec = <T extends Specified>(owner: T, key: string, value: number | string | undefined): T => ({
  ...owner,
  specs: { ...owner.specs, [key]: value },
})

/** A measurement entered, or taken out with `undefined`; the last one out takes the object with it. */
export function withMeasurement<T extends Specified>(owner: T, key: string, measurement: Measurement | undefined): T {
  const rest = Object.fromEntries(Object.entries(owner.measured ?? {}).filter(([each]) => each !== key))
  const measured = measurement ? { ...rest, [key]: measurement } : rest
  return { ...owner, measured: Object.keys(measured).length > 0 ? measured : undefined }
}
