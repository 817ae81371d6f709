import { isDigitalInput, isInterface, isLink, isSoundSource } from '../gear'
import type { ResolvedStage } from '../gear/stage'
import { wayToHost } from '../chain/way-to-host'
import type { RouteInputs } from './routes'
import type { Session } from '../session'
import type { Strip } from '../model'

/**
 * The way to the ear goes through the last interface of a strip, or of the bus that takes it there, whose driver the host
 * talks to. A unit before it on a digital link lends its converter; links on the way add their own time. A strip that comes
 * to no interface has no route yet.
 */
export function routeInputs(
  session: Session,
  strip: Strip,
  stages: readonly ResolvedStage[],
): { stage: string; inputs: RouteInputs } | null {
  const way = wayToHost(session, strip, stages)
  const [first, last] = [stages[0], stages.at(-1)]
  if (!way || !last) return null
  const { input: unit } = way
  const converter = way.stages.find((stage) => isInterface(stage))
  return {
    stage: stages.includes(unit) ? unit.id : last.id,
    inputs: {
      unit: unit.gear,
      converter: converter?.gear ?? null,
      digitalIn: isDigitalInput(unit),
      system: session.system,
      room: session.room,
      monitor: strip.monitor,
      distance: isSoundSource(first) ? first.distance : undefined,
      links: way.stages.flatMap((stage) => (isLink(stage) ? [stage.specs.latency] : [])),
    },
  }
}
