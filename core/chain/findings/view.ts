import type { Finding, Session, Strip, TargetWindow } from '../../session'
import type { Contribution, Point } from '../cascade'
import type { GainControl } from '../gain-control'
import { lastControl } from '../gain-control'
import type { LevelClass } from '../level-class'
import type { PhantomUse } from '../phantom'
import type { ResolvedInput, ResolvedMicrophone, ResolvedSource, ResolvedStage } from '../resolve'

/** All that a check may look at: one strip as it is set, what the cascade said of it, and the neighbours' phantom. */
export interface StripView {
  readonly session: Session
  readonly strip: Strip
  readonly stages: readonly ResolvedStage[]
  readonly points: readonly Point[]
  readonly noise: readonly Contribution[]
  /** Its gains, in the order of the signal. */
  readonly controls: readonly GainControl[]
  /** The level class of every stage's output. */
  readonly classes: readonly (LevelClass | null)[]
  readonly target: TargetWindow
  /** The phantom power of all strips; `own` is this strip's. */
  readonly phantom: readonly PhantomUse[]
  readonly own: readonly PhantomUse[]
}

export type Check = (view: StripView) => readonly Finding[]

/** Nothing to say. One list for all: an evaluation asks twenty checks about every stage, and nearly all say this. */
export const NOTHING: readonly Finding[] = []

/** A check that looks at one stage after the other. */
export const perStage =
  (look: (view: StripView, stage: ResolvedStage, i: number) => readonly Finding[]): Check =>
  (view) => {
    let found = NOTHING
    for (let i = 0; i < view.stages.length; i++) {
      const more = look(view, view.stages[i] as ResolvedStage, i)
      if (more.length > 0) found = found.length > 0 ? [...found, ...more] : more
    }
    return found
  }

export const microphones = (view: StripView) =>
  view.stages.filter((stage): stage is ResolvedMicrophone => stage.kind === 'microphone')
export const inputs = (view: StripView) =>
  view.stages.filter((stage): stage is ResolvedInput => stage.kind === 'interface')
export const source = (view: StripView) =>
  view.stages.find((stage): stage is ResolvedSource => stage.kind === 'sound-source')

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
  return stage && point?.unit === 'dBFS' ? { stage, point, control: lastControl(view.controls) } : null
}

/** What the box of a stage is called. */
export const gearName = (view: StripView, stageId: string) =>
  view.stages.find((stage) => stage.id === stageId)?.gear.name ?? ''
