import type { Gear, GearKind, GearOf } from './kinds'
import { isInterface } from './interface/interface'
import { isSoundSource } from './sound-source/sound-source'
import type { Stage, Strip } from '../model'
import type { Db } from '../units'
import { db } from '../units'
import { withMeasuredEin } from './equivalent-input-noise'
import type { ResolvedDigitalInput, ResolvedInput, ResolvedOutput } from './interface/stage'
import { joinInterface } from './interface/stage'
import type { Placed } from './placed'
import { placed } from './placed'
import type { ResolvedSource } from './sound-source/stage'
import { joinSource } from './sound-source/stage'

export type PlainKind = Exclude<GearKind, 'interface' | 'sound-source' | 'headphones'>

/** A stage joined with its gear: the specifications in force and the settings of its kind. */
export interface Resolved<K extends PlainKind> extends Placed {
  readonly kind: K
  readonly gear: GearOf<K>
  readonly specs: GearOf<K>['specs']
  readonly gain: Db
}
export type ResolvedMicrophone = Resolved<'microphone'>
type ResolvedPlain = { [K in PlainKind]: Resolved<K> }[PlainKind]
export type ResolvedStage = ResolvedSource | ResolvedPlain | ResolvedInput | ResolvedDigitalInput | ResolvedOutput

/** The gear of a session by its id. */
export type Boxes = Pick<ReadonlyMap<string, Gear>, 'get'>

/** Joins the stages of a strip with their gear. The session has been read, so every name is borne by something. */
export const resolveStrip = (strip: Strip, gear: Boxes): ResolvedStage[] =>
  strip.stages.map((stage) => resolveStage(stage, gear.get(stage.gear) as Gear))

/** Joins one stage with its gear. */
export function resolveStage(stage: Stage, gear: Gear): ResolvedStage {
  const own = placed(stage)
  if (isSoundSource(gear)) return joinSource(own, gear)
  if (isInterface(gear)) return joinInterface(own, gear, stage.port)
  const specs = withMeasuredEin(gear as { specs: object })
  return { kind: gear.kind, ...own, gear, specs, gain: stage.settings.gain ?? db(0) } as ResolvedPlain
}
