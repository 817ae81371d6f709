import { initialSettings } from './complete'
import type { Gear } from './gear'
import type { Session } from './session'
import type { Settings } from './settings'
import type { Stage, Strip } from './strip'

/** A change of what stands in a strip. */
export type StructureChange =
  | { do: 'insert'; strip: string; index: number; gear: Gear; settings?: Settings; port?: string }
  | { do: 'remove'; strip: string; stage: string }
  | { do: 'move'; strip: string; stage: string; to: number }
  | { do: 'replace'; strip: string; stage: string; gear: Gear; port?: string }
  | { do: 'port'; strip: string; stage: string; port: string }

export function applyStructure(session: Session, change: StructureChange): Session {
  const withGear =
    'gear' in change && !session.gear.some((item) => item.id === change.gear.id)
      ? { ...session, gear: [...session.gear, change.gear] }
      : session
  const changed = {
    ...withGear,
    strips: withGear.strips.map((strip) =>
      strip.id === change.strip ? { ...strip, stages: restaged(withGear, strip, change) } : strip,
    ),
  }
  return change.do === 'remove' || change.do === 'replace' ? withoutUnusedGear(changed, session) : changed
}

function restaged(session: Session, strip: Strip, change: StructureChange): Stage[] {
  const stages = [...strip.stages]
  if (change.do === 'insert') {
    const stage = {
      id: freeStageId(session, strip.id),
      gear: change.gear.id,
      ...(change.port !== undefined && { port: change.port }),
      settings: { ...initialSettings(change.gear, change.port), ...change.settings },
    }
    stages.splice(change.index, 0, stage)
    return stages
  }
  const at = stages.findIndex((stage) => stage.id === change.stage)
  const stage = stages[at]
  if (!stage) return stages
  switch (change.do) {
    case 'remove':
      stages.splice(at, 1)
      break
    case 'move':
      stages.splice(at, 1)
      stages.splice(Math.max(0, Math.min(stages.length, change.to)), 0, stage)
      break
    case 'replace':
      stages[at] = {
        id: stage.id,
        gear: change.gear.id,
        ...(change.port !== undefined && { port: change.port }),
        settings: initialSettings(change.gear, change.port),
      }
      break
    case 'port': {
      const gear = session.gear.find((item) => item.id === stage.gear)
      if (gear)
        stages[at] = {
          ...stage,
          port: change.port,
          settings: { ...initialSettings(gear, change.port), ...cableOf(stage.settings) },
        }
      break
    }
  }
  return stages
}

const cableOf = ({ cable, capacitance }: Settings): Settings => ({
  ...(cable !== undefined && { cable }),
  ...(capacitance !== undefined && { capacitance }),
})

/** A stage id that nothing in the session bears. */
function freeStageId(session: Session, strip: string): string {
  const taken = new Set(session.strips.flatMap((each) => each.stages.map((stage) => stage.id)))
  for (let n = 1; ; n++) {
    const id = `${strip.slice(0, 50)}-${n}`
    if (!taken.has(id)) return id
  }
}

/** Gear that stood in a strip before a change and stands in none now leaves the session with it. */
function withoutUnusedGear(session: Session, before: Session): Session {
  const used = (each: Session) => new Set(each.strips.flatMap((strip) => strip.stages.map((stage) => stage.gear)))
  const [was, is] = [used(before), used(session)]
  return { ...session, gear: session.gear.filter((item) => is.has(item.id) || !was.has(item.id)) }
}
