import type { ResolvedDigitalInput, ResolvedInput } from '../gear'
import { isDigitalInput, isInterface } from '../gear'
import type { Session } from '../session'
import type { Strip } from '../model'
import { feedsOf } from '../model'
import type { ResolvedStage } from '../gear/stage'
import { stagesOf } from '../resolved/resolve-session'

/** How a strip comes into the host: by an interface of its own, or over busses by the first that has one. */
export interface WayToHost {
  /** The input that it comes in by. */
  input: ResolvedInput | ResolvedDigitalInput
  /** Every stage on the way, those of the busses with them. */
  stages: readonly ResolvedStage[]
}

/** @returns `null` for a strip that stays outside: a way back from the host, or a desk that nothing records. */
export function wayToHost(session: Session, strip: Strip, stages: readonly ResolvedStage[]): WayToHost | null {
  const input = stages.findLast(isInput)
  if (input) return { input, stages }
  const over = feedsOf(strip).flatMap(({ to }) => session.strips.filter(({ id }) => id === to))
  if (over.length === 0) return null
  for (const bus of over) {
    const way = wayToHost(session, bus, stagesOf(session, bus))
    if (way) return { input: way.input, stages: [...stages, ...way.stages] }
  }
  return null
}

const isInput = (stage: ResolvedStage): stage is ResolvedInput | ResolvedDigitalInput =>
  isInterface(stage) || isDigitalInput(stage)
