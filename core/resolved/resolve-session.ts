import type { Gear } from '../gear'
import type { Stage, Strip } from '../model'
import type { Session } from '../session'
import type { ResolvedStage } from '../gear/stage'
import { resolveStage } from '../gear/stage'

/** A session whose stages are joined with their gear, each strip when it is first asked for. */
class ResolvedSession {
  readonly gear: ReadonlyMap<string, Gear>
  private readonly strips = new WeakMap<Strip, readonly ResolvedStage[]>()

  constructor(session: Session) {
    this.gear = new Map(session.gear.map((item) => [item.id, item]))
  }

  stages(strip: Strip): readonly ResolvedStage[] {
    const before = this.strips.get(strip)
    if (before) return before
    const now = strip.stages.map((stage) => joined(stage, this.gear.get(stage.gear) as Gear))
    this.strips.set(strip, now)
    return now
  }
}

/** A stage that an edit did not touch stays the same object from state to state, so that nothing that shows it is drawn again. */
const stages = new WeakMap<Stage, ResolvedStage>()

function joined(stage: Stage, gear: Gear): ResolvedStage {
  const before = stages.get(stage)
  if (before?.gear === gear) return before
  const now = resolveStage(stage, gear)
  stages.set(stage, now)
  return now
}

/** A session is never changed in its place: an edit makes another one, so that what was joined holds as long as it is there. */
const sessions = new WeakMap<Session, ResolvedSession>()

function resolveSession(session: Session): ResolvedSession {
  const before = sessions.get(session)
  if (before) return before
  const now = new ResolvedSession(session)
  sessions.set(session, now)
  return now
}

/** The gear of a session by its id. */
export const gearById = (session: Session): ReadonlyMap<string, Gear> => resolveSession(session).gear

/**
 * The stages of a strip joined with their gear, the same objects whoever asks.
 * @param strip one of the session, or another state of one with the session’s boxes
 */
export const stagesOf = (session: Session, strip: Strip): readonly ResolvedStage[] =>
  resolveSession(session).stages(strip)
