import type { ResolvedStage } from '../chain/resolve'
import type { RouteInputs } from './routes'
import type { Session, Strip } from '../session'

/**
 * The way to the ear goes through the last interface of a strip, whose driver the host talks to. A unit before it on a
 * digital link lends its converter; links on the way add their own time. A strip without an interface has no route yet.
 */
export function routeInputs(
  session: Session,
  strip: Strip,
  stages: ResolvedStage[],
): { stage: string; inputs: RouteInputs } | null {
  const unit = stages.findLast((stage) => stage.kind === 'interface' || stage.kind === 'digital-input')
  const converter = stages.find((stage) => stage.kind === 'interface')
  const first = stages[0]
  if (unit?.kind !== 'interface' && unit?.kind !== 'digital-input') return null
  return {
    stage: unit.id,
    inputs: {
      unit: unit.gear,
      converter: converter?.gear ?? null,
      digitalIn: unit.kind === 'digital-input',
      system: session.system,
      room: session.room,
      monitor: strip.monitor,
      distance: first?.kind === 'sound-source' ? first.distance : undefined,
      links: stages.flatMap((stage) => (stage.kind === 'link' ? [stage.specs.latency] : [])),
    },
  }
}
