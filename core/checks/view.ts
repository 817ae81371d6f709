import type { ResolvedSource } from '../gear/sound-source/stage'
import type { ResolvedInput } from '../gear'
import { isInterface, isMicrophone, isSoundSource } from '../gear'
import type { Draft } from './finding'
import type { Session } from '../session'
import type { Strip, TargetWindow } from '../model'
import type { Contribution, Point } from '../chain/cascade'
import type { GainControl } from '../chain/gain-control'
import type { PhantomUse } from '../chain/phantom'
import type { ResolvedMicrophone, ResolvedStage } from '../gear/stage'
import type { ReadingPlace } from '../chain/target-window'
import type { LevelClass } from '../gear/chain-traits'

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
  /** Where the target is read; `null` for a strip that reaches no recorder. */
  readonly place: ReadingPlace | null
  /** The phantom power of all strips; `own` is this strip's. */
  readonly phantom: readonly PhantomUse[]
  readonly own: readonly PhantomUse[]
}

export type Check = (view: StripView) => readonly Draft[]

/** Nothing to say. One list for all: an evaluation asks twenty checks about every stage, and nearly all say this. */
export const NOTHING: readonly Draft[] = []

/** A check that looks at one stage after the other. */
export const perStage =
  (look: (view: StripView, stage: ResolvedStage, i: number) => readonly Draft[]): Check =>
  (view) => {
    let found = NOTHING
    for (let i = 0; i < view.stages.length; i++) {
      const more = look(view, view.stages[i] as ResolvedStage, i)
      if (more.length > 0) found = found.length > 0 ? [...found, ...more] : more
    }
    return found
  }

export const microphones = (view: StripView) =>
  view.stages.filter((stage): stage is ResolvedMicrophone => isMicrophone(stage))
export const inputs = (view: StripView) => view.stages.filter((stage): stage is ResolvedInput => isInterface(stage))
export const source = (view: StripView) => view.stages.find((stage): stage is ResolvedSource => isSoundSource(stage))

/** What the box of a stage is called. */
export const gearName = (view: StripView, stageId: string) =>
  view.stages.find((stage) => stage.id === stageId)?.gear.name ?? ''
