import type { Gear } from '../gear'
import type { Measurement, NumberField } from '../model'
import type { Session } from '../session'
import type { Specified } from '../edits'
import { inputSpecs, latencySpecs, outputSpecs, traitsOf, isInterface } from '../gear'
import { monitorFields, noLongerAssumed, roomFields, settingFields } from '../model'
import { withMeasurement } from '../edits'
import type { InputPlace } from './input'
import { withSpecAt } from './input'

/** The field of an uncertain input; `null` for what is edited elsewhere. */
export function fieldOfInput(session: Session, place: InputPlace): NumberField | null {
  switch (place.in) {
    case 'gear': {
      const gear = session.gear.find(({ id }) => id === place.gear)
      if (!gear) return null
      const table = place.port ? (place.port.side === 'inputs' ? inputSpecs : outputSpecs) : traitsOf(gear).fields(gear)
      return (table as Record<string, NumberField>)[place.spec] ?? null
    }
    case 'latency':
      return latencySpecs[place.spec as keyof typeof latencySpecs] ?? null
    case 'strip':
      return settingFields[place.setting]
    case 'monitor':
      return monitorFields.speakerDistance
    case 'room':
      return roomFields[place.field]
    case 'round-trips':
      return null
  }
}

/** A session with the value in force of one input changed: of a measured one the measured value. Nothing is checked here. */
export function withInput(session: Session, place: InputPlace, value: number): Session {
  switch (place.in) {
    case 'gear':
      return {
        ...session,
        gear: session.gear.map((each) => (each.id === place.gear ? boxWith(each, place, value) : each)),
      }
    case 'latency':
      return {
        ...session,
        gear: session.gear.map((each) =>
          each.id === place.gear && isInterface(each)
            ? ({ ...each, latency: { ...each.latency, [place.spec]: value } } as Gear)
            : each,
        ),
      }
    case 'strip':
      return {
        ...session,
        strips: session.strips.map((strip) =>
          strip.id === place.strip
            ? {
                ...strip,
                stages: strip.stages.map((stage) =>
                  stage.id === place.stage
                    ? { ...stage, settings: { ...stage.settings, [place.setting]: value } as typeof stage.settings }
                    : stage,
                ),
              }
            : strip,
        ),
      }
    case 'monitor':
      return {
        ...session,
        strips: session.strips.map((strip) =>
          strip.id === place.strip
            ? { ...strip, monitor: { ...strip.monitor, speakerDistance: value as never } }
            : strip,
        ),
      }
    case 'room': {
      const { [place.field]: measured } = session.room.measured ?? {}
      return {
        ...session,
        room: measured
          ? { ...session.room, measured: { ...session.room.measured, [place.field]: { ...measured, value } } }
          : { ...session.room, [place.field]: value },
      } as Session
    }
    case 'round-trips':
      return session
  }
}

/** Whoever changes a printed value has read it somewhere: it is assumed no longer. */
function boxWith(gear: Gear, { port, spec }: Extract<InputPlace, { in: 'gear' }>, value: number): Gear {
  const changed = withSpecAt(gear, port, spec, value)
  return port ? changed : (noLongerAssumed(changed, spec) as Gear)
}

/** A figure of a box as it was measured. */
export const withMeasuredInput = (
  session: Session,
  { gear: id, port, spec }: Extract<InputPlace, { in: 'gear' }>,
  measurement: Measurement,
): Session => ({
  ...session,
  gear: session.gear.map((each) => {
    if (each.id !== id) return each
    if (!port) return withMeasurement(each as Gear & Specified, spec, measurement) as Gear
    const unit = each as unknown as Record<typeof port.side, (Specified & { id: string })[]>
    const ports = unit[port.side].map((one) => (one.id === port.id ? withMeasurement(one, spec, measurement) : one))
    return { ...each, [port.side]: ports } as Gear
  }),
})
