import type { Doubt, Gear, Session, Strip, ValueOrigin } from '../session'
import { moved } from '../session'

/** Where in the session an uncertain value stands. */
export type InputPlace =
  | { readonly in: 'gear'; readonly gear: string; readonly port?: Port; readonly spec: string }
  | { readonly in: 'latency'; readonly gear: string; readonly spec: string }
  | {
      readonly in: 'strip'
      readonly strip: string
      readonly stage: string
      readonly setting: 'distance' | 'gain' | 'fader'
    }
  | { readonly in: 'monitor'; readonly strip: string }
  | { readonly in: 'room'; readonly field: 'ambient' | 'temperature' }
  | { readonly in: 'round-trips'; readonly strip: string }
export interface Port {
  readonly side: 'inputs' | 'outputs'
  readonly id: string
}

/** One value that a session’s figures rest on, and how well it is known. A box in two strips is one input. */
export interface UncertainInput {
  /** As DESIGN names it: `gear.<id>.<spec>`, `strips.<strip>.<stage>.<setting>`, `room.<field>`, `system.<field>`. */
  readonly path: string
  readonly place: InputPlace
  /** What it is called, and what of. */
  readonly label: string
  readonly owner: string
  readonly unit: string
  readonly value: number
  readonly origin: ValueOrigin
  readonly on: string | undefined
  readonly method: string | undefined
  readonly doubt: Doubt
  /** Strips in which it stands; what those feed, it reaches too. */
  readonly strips: readonly string[]
}

/** An input in a sentence. */
export const nameOfInput = ({ label, owner, place }: Pick<UncertainInput, 'label' | 'owner' | 'place'>): string =>
  place.in === 'room' ? label : `${label} of ${owner}`

/** A session’s parts with some of its inputs moved; what is not moved is shared. */
export class Moved {
  private readonly boxes = new Map<string, Gear>()
  private readonly strips = new Map<string, Strip>()
  room: Session['room']

  constructor(
    private readonly session: Session,
    private readonly gear: ReadonlyMap<string, Gear>,
  ) {
    this.room = session.room
  }

  get = (id: string): Gear | undefined => this.boxes.get(id) ?? this.gear.get(id)
  strip = (strip: Strip): Strip => this.strips.get(strip.id) ?? strip

  /** Moves one input by so many of its standard uncertainties. */
  move({ place, value, doubt }: UncertainInput, z: number): void {
    const to = moved(value, doubt, z)
    switch (place.in) {
      case 'gear':
        this.boxes.set(place.gear, withSpecAt(this.get(place.gear) as Gear, place.port, place.spec, to))
        return
      case 'latency': {
        const unit = this.get(place.gear) as Extract<Gear, { kind: 'interface' }>
        this.boxes.set(place.gear, { ...unit, latency: { ...unit.latency, [place.spec]: to } } as Gear)
        return
      }
      case 'strip':
        this.edit(place.strip, (strip) => ({
          ...strip,
          stages: strip.stages.map((stage) =>
            stage.id === place.stage
              ? { ...stage, settings: { ...stage.settings, [place.setting]: to } as typeof stage.settings }
              : stage,
          ),
        }))
        return
      case 'monitor':
        this.edit(place.strip, (strip) => ({ ...strip, monitor: { ...strip.monitor, speakerDistance: to as never } }))
        return
      case 'room':
        this.room = { ...this.room, [place.field]: to, measured: { ...this.room.measured, [place.field]: undefined } }
        return
      case 'round-trips':
        // It moves a time, not a value of the session.
        return
    }
  }

  private edit(id: string, change: (strip: Strip) => Strip): void {
    const strip = this.strips.get(id) ?? this.session.strips.find((each) => each.id === id)
    if (strip) this.strips.set(id, change(strip))
  }
}

interface Figures {
  readonly specs: object
  readonly measured?: object | undefined
}

/** A box with one figure in force replaced, at the box itself or at a port. */
export function withSpecAt(gear: Gear, port: Port | undefined, spec: string, value: number): Gear {
  if (!port) return inForceAs(gear as Gear & Figures, spec, value)
  const unit = gear as unknown as Record<Port['side'], (Figures & { id: string })[]>
  return {
    ...gear,
    [port.side]: unit[port.side].map((each) => (each.id === port.id ? inForceAs(each, spec, value) : each)),
  } as Gear
}

/** Anything with figures, the one in force replaced: the measured one where there is one. */
export function inForceAs<T extends Figures>(owner: T, spec: string, value: number): T {
  const measured = owner.measured as Record<string, object | undefined> | undefined
  const measurement = measured?.[spec]
  return measurement
    ? { ...owner, measured: { ...measured, [spec]: { ...measurement, value } } }
    : { ...owner, specs: { ...owner.specs, [spec]: value } }
}
