import type {
  AudioInterface, Gear, InputSpecs, InterfaceInput, Microphone, MicrophoneSpecs, Session, SoundSource, SoundSourceSpecs,
  Stage, Strip,
} from '../session'
import { inForce } from '../session'
import type { Db, Dbu, Metres } from '../units'
import { einExcess, einWeighted } from './noise'

/** A stage joined with its gear: the specifications in force and the settings of its kind. */
export type ResolvedStage = ResolvedSource | ResolvedMicrophone | ResolvedInput

export interface ResolvedSource {
  readonly kind: 'sound-source'
  readonly id: string
  readonly gear: SoundSource
  readonly specs: SoundSourceSpecs
  readonly distance: Metres
}
export interface ResolvedMicrophone {
  readonly kind: 'microphone'
  readonly id: string
  readonly gear: Microphone
  readonly specs: MicrophoneSpecs
}
export interface ResolvedInput {
  readonly kind: 'interface'
  readonly id: string
  readonly gear: AudioInterface
  readonly input: InterfaceInput
  readonly specs: InputSpecs & { einWeighting: 'A' | 'Z' }
  /** What its preamp adds, dBu(A); `null` without an EIN, or with one that cannot be. */
  readonly excess: Dbu | null
  readonly gain: Db
  readonly phantom: boolean
  readonly pad: boolean
}

export const gearById = (session: Session): ReadonlyMap<string, Gear> =>
  new Map(session.gear.map((item) => [item.id, item]))

/** Joins the stages of a strip with their gear. The session has been read, so every name is borne by something. */
export const resolveStrip = (strip: Strip, gear: ReadonlyMap<string, Gear>): ResolvedStage[] =>
  strip.stages.map((stage) => resolveStage(stage, gear.get(stage.gear) as Gear))

function resolveStage({ id, port, settings }: Stage, gear: Gear): ResolvedStage {
  switch (gear.kind) {
    case 'sound-source': {
      const specs = inForce(gear)
      return { kind: gear.kind, id, gear, specs, distance: settings.distance ?? specs.distance }
    }
    case 'microphone':
      return { kind: gear.kind, id, gear, specs: inForce(gear) }
    case 'interface': {
      const input = gear.inputs.find((candidate) => candidate.id === port) as InterfaceInput
      const specs = inputSpecsInForce(input)
      return {
        kind: gear.kind, id, gear, input, specs,
        excess: specs.ein === undefined ? null : einExcess(einWeighted(specs.ein, specs.einWeighting)),
        gain: settings.gain ?? specs.gainMin,
        phantom: settings.phantom ?? false,
        pad: settings.pad ?? false,
      }
    }
  }
}

/** A measured EIN is A-weighted, like everything measured here; the printed one says its own weighting. */
function inputSpecsInForce(input: InterfaceInput): ResolvedInput['specs'] {
  const specs = inForce(input)
  return input.measured?.ein ? { ...specs, einWeighting: 'A' } : specs
}
