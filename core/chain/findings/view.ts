import type { Finding, Session, Strip, TargetWindow } from '../../session'
import type { Contribution, Point } from '../cascade'
import type { GainControl } from '../gain-control'
import { lastControl } from '../gain-control'
import type { PhantomUse } from '../phantom'
import type { ResolvedInput, ResolvedMicrophone, ResolvedSource, ResolvedStage } from '../resolve'

/** All that a check may look at: one strip as it is set, what the cascade said of it, and the neighbours' phantom. */
export interface StripView {
  readonly session: Session
  readonly strip: Strip
  readonly stages: readonly ResolvedStage[]
  readonly points: readonly Point[]
  readonly noise: readonly Contribution[]
  readonly target: TargetWindow
  /** The phantom power of all strips; `own` is this strip's. */
  readonly phantom: readonly PhantomUse[]
  readonly own: readonly PhantomUse[]
}

export type Check = (view: StripView) => Finding[]

export const microphones = (view: StripView) => view.stages.filter((stage): stage is ResolvedMicrophone => stage.kind === 'microphone')
export const inputs = (view: StripView) => view.stages.filter((stage): stage is ResolvedInput => stage.kind === 'interface')
export const source = (view: StripView) => view.stages.find((stage): stage is ResolvedSource => stage.kind === 'sound-source')

export interface Recorded {
  readonly stage: ResolvedStage
  readonly point: Point
  /** What one turns for the level there; `null` where nothing can be turned. */
  readonly control: GainControl | null
}

/** The point at the recorder, with the gain that sets it; `null` for a strip that does not reach one. */
export function recorded(view: StripView): Recorded | null {
  const stage = view.stages.at(-1)
  const point = view.points.at(-1)
  return stage && point?.unit === 'dBFS' ? { stage, point, control: lastControl(view.stages) } : null
}

/** A level or a difference in a sentence, one decimal. */
export const gearName = (view: StripView, stageId: string) => view.stages.find((stage) => stage.id === stageId)?.gear.name ?? ''
