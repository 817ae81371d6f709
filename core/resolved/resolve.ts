import type {
  AnalogueInput,
  AudioInterface,
  Gear,
  GearKind,
  GearOf,
  InputSpecs,
  InterfaceInput,
  InterfaceOutput,
  Settings,
  Stage,
  Strip,
} from '../model'
import { inForce, outputAt } from '../model'
import type { Db, Dbu, Metres } from '../units'
import { db } from '../units'
import { einExcess } from './equivalent-input-noise'

/** What every stage has once it is joined with its gear. */
interface Placed {
  readonly id: string
  readonly settings: Settings
  /** Gains that the planner leaves alone. */
  readonly locked: readonly ('gain' | 'fader')[]
  /** Overdriven on purpose. */
  readonly driven: boolean
  /** What it gives beyond what it is set to, as readings say, dB. */
  readonly offset: number
}

export type PlainKind = Exclude<GearKind, 'interface' | 'sound-source' | 'headphones'>

/** A stage joined with its gear: the specifications in force and the settings of its kind. */
export interface Resolved<K extends PlainKind> extends Placed {
  readonly kind: K
  readonly gear: GearOf<K>
  readonly specs: GearOf<K>['specs']
  readonly gain: Db
}
export interface ResolvedSource extends Placed {
  readonly kind: 'sound-source'
  readonly gear: GearOf<'sound-source'>
  readonly specs: GearOf<'sound-source'>['specs']
  readonly distance: Metres
}
export interface ResolvedInput extends Placed {
  readonly kind: 'interface'
  readonly gear: AudioInterface
  readonly input: AnalogueInput
  readonly specs: InputSpecs & { einWeighting: 'A' | 'Z' }
  /** What its preamp adds, dBu(A); `null` without an EIN, or with one that cannot be. */
  readonly excess: Dbu | null
  readonly gain: Db
  readonly phantom: boolean
  readonly pad: boolean
}
/** An interface input that takes numbers from another unit. */
export interface ResolvedDigitalInput extends Placed {
  readonly kind: 'digital-input'
  readonly gear: AudioInterface
  readonly input: Extract<InterfaceInput, { type: 'digital' }>
}

/** An interface output that gives the host’s numbers out as volts. */
export interface ResolvedOutput extends Placed {
  readonly kind: 'interface-output'
  readonly gear: AudioInterface
  readonly output: InterfaceOutput
  readonly specs: InterfaceOutput['specs']
}

export type ResolvedMicrophone = Resolved<'microphone'>
type ResolvedPlain = { [K in PlainKind]: Resolved<K> }[PlainKind]
export type ResolvedStage = ResolvedSource | ResolvedPlain | ResolvedInput | ResolvedDigitalInput | ResolvedOutput

/** The gear of a session by its id. */
export type Boxes = Pick<ReadonlyMap<string, Gear>, 'get'>

/** Joins the stages of a strip with their gear. The session has been read, so every name is borne by something. */
export const resolveStrip = (strip: Strip, gear: Boxes): ResolvedStage[] =>
  strip.stages.map((stage) => resolveStage(stage, gear.get(stage.gear) as Gear))

const NONE: NonNullable<Stage['locked']> = []

/** Joins one stage with its gear. */
export function resolveStage({ id, port, settings, ...stage }: Stage, gear: Gear): ResolvedStage {
  const { locked = NONE, driven = false, offset = 0 } = stage
  switch (gear.kind) {
    case 'sound-source': {
      const specs = inForce(gear)
      return {
        kind: gear.kind,
        id,
        settings,
        locked,
        driven,
        offset,
        gear,
        specs,
        distance: settings.distance ?? specs.distance,
      }
    }
    case 'interface': {
      const output = outputAt(gear, port)
      if (output)
        return { kind: 'interface-output', id, settings, locked, driven, offset, gear, output, specs: inForce(output) }
      const input = gear.inputs.find((candidate) => candidate.id === port) as InterfaceInput
      if (input.type === 'digital') return { kind: 'digital-input', id, settings, locked, driven, offset, gear, input }
      const specs = withMeasuredEin(input)
      return {
        kind: gear.kind,
        id,
        settings,
        locked,
        driven,
        offset,
        gear,
        input,
        specs,
        excess: specs.ein === undefined ? null : einExcess({ ...specs, ein: specs.ein }),
        gain: settings.gain ?? specs.gainMin,
        phantom: settings.phantom ?? false,
        pad: settings.pad ?? false,
      }
    }
    default: {
      const specs = withMeasuredEin(gear as { specs: object })
      return {
        kind: gear.kind,
        id,
        settings,
        locked,
        driven,
        offset,
        gear,
        specs,
        gain: settings.gain ?? db(0),
      } as ResolvedPlain
    }
  }
}

/** A measured EIN is A-weighted and of 150 Ω, like everything measured here; the printed one says its own. */
function withMeasuredEin<S extends object>(owner: { specs: S; measured?: object | undefined }): S {
  const specs = inForce(owner)
  return owner.measured && 'ein' in owner.measured && owner.measured.ein
    ? { ...specs, einWeighting: 'A', einSource: undefined }
    : specs
}
