import type { Port } from '../gear/chain-traits'
import type { Gear } from '../gear'
import type { InputSpread, Strip, ValueOrigin } from '../model'
import type { Session } from '../session'
import { moved } from '../model'

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
  readonly doubt: InputSpread
  /** Strips in which it stands; what those feed, it reaches too. */
  readonly strips: readonly string[]
}

/** An input in a sentence. */
export const nameOfInput = ({ label, owner, place }: Pick<UncertainInput, 'label' | 'owner' | 'place'>): string =>
  place.in === 'room' ? label : `${label} of ${owner}`

/** A session’s parts with some of its inputs moved, as often as wanted; what is not moved is shared. */
export class Moved {
  /** Copies of boxes of which something was moved, made once and then changed in place. */
  private readonly boxes = new Map<string, Gear>()
  private readonly ownPorts = new Set<object>()
  private readonly ownStages = new Set<string>()
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
        this.setSpec(place.gear, place.port, place.spec, to)
        return
      case 'latency': {
        const unit = this.own(place.gear) as Extract<Gear, { kind: 'interface' }>
        unit.latency = { ...unit.latency, [place.spec]: to } as typeof unit.latency
        return
      }
      case 'strip':
        this.setSetting(place.strip, place.stage, place.setting, to)
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

  private own(id: string): Gear {
    const known = this.boxes.get(id)
    if (known) return known
    const copy = copyOf(this.gear.get(id) as Gear & Figures) as Gear
    this.boxes.set(id, copy)
    return copy
  }

  private setSpec(id: string, port: Port | undefined, spec: string, value: number): void {
    const box = this.own(id)
    if (!port) {
      setInForce(box as Gear & Figures, spec, value)
      return
    }
    const unit = box as unknown as Record<Port['side'], (Figures & { id: string })[]>
    const at = unit[port.side].findIndex((each) => each.id === port.id)
    let own = unit[port.side][at] as Figures & { id: string }
    if (!this.ownPorts.has(own)) {
      own = copyOf(own)
      this.ownPorts.add(own)
      unit[port.side] = unit[port.side].map((each, i) => (i === at ? own : each))
    }
    setInForce(own, spec, value)
  }

  private setSetting(id: string, stage: string, setting: string, value: number): void {
    if (!this.ownStages.has(`${id} ${stage}`)) {
      this.ownStages.add(`${id} ${stage}`)
      this.edit(id, (strip) => ({
        ...strip,
        stages: strip.stages.map((each) => (each.id === stage ? { ...each, settings: { ...each.settings } } : each)),
      }))
    }
    const own = this.strips.get(id)?.stages.find((each) => each.id === stage)
    if (own) (own.settings as Record<string, unknown>)[setting] = value
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

const copyOf = <T extends Figures>(owner: T): T => ({
  ...owner,
  specs: { ...owner.specs },
  ...(owner.measured && { measured: { ...owner.measured } }),
})

/** The figure in force of a copy of one’s own: the measured one where there is one. */
function setInForce({ specs, measured }: Figures, spec: string, value: number): void {
  const known = measured as Record<string, object | undefined> | undefined
  if (known?.[spec]) known[spec] = { ...known[spec], value }
  else (specs as Record<string, number>)[spec] = value
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
