import { initialSettings } from './complete'
import type { Gear } from './gear'
import type { Session, Stage, Strip } from './session'
import type { SettingName, SettingValue, Settings } from './settings'
import { settingsOf } from './settings'

/** A change of one setting of one stage. */
export interface SettingChange {
  strip: string
  stage: string
  setting: SettingName
  to: SettingValue
}

/** A change of what stands in a strip. */
export type StructureChange =
  | { do: 'insert'; strip: string; index: number; gear: Gear; settings?: Settings; port?: string }
  | { do: 'remove'; strip: string; stage: string }
  | { do: 'move'; strip: string; stage: string; to: number }
  | { do: 'replace'; strip: string; stage: string; gear: Gear; port?: string }
  | { do: 'port'; strip: string; stage: string; port: string }

export type Change = SettingChange | StructureChange

const isStructure = (change: Change): change is StructureChange => 'do' in change

/**
 * The session with some things changed; the rest of it is shared, not copied. Values are not checked here.
 * The strips of a stereo pair are set alike: a setting of the one is a setting of the other's stage at the same place.
 */
export function applyChanges(session: Session, changes: readonly Change[]): Session {
  const settings = changes.filter((change): change is SettingChange => !isStructure(change))
  const structured = changes.filter(isStructure).reduce(applyStructure, session)
  return applySettings(structured, [...settings, ...mirrored(structured, settings)])
}

function applySettings(session: Session, changes: readonly SettingChange[]): Session {
  if (changes.length === 0) return session
  return {
    ...session,
    strips: session.strips.map((strip) => {
      const own = changes.filter((change) => change.strip === strip.id)
      if (own.length === 0) return strip
      return {
        ...strip,
        stages: strip.stages.map((stage) => {
          const settings = own.filter((change) => change.stage === stage.id).map(({ setting, to }) => [setting, to])
          return settings.length === 0
            ? stage
            : { ...stage, settings: { ...stage.settings, ...Object.fromEntries(settings) } }
        }),
      }
    }),
  }
}

/** The partner of a strip in a stereo pair. */
export function partnerOf(session: Session, stripId: string): string | null {
  const pair = session.pairs?.find((each) => each.left === stripId || each.right === stripId)
  return pair ? (pair.left === stripId ? pair.right : pair.left) : null
}

function mirrored(session: Session, changes: readonly SettingChange[]): SettingChange[] {
  if (!session.pairs) return []
  const kindOf = new Map(session.gear.map((item) => [item.id, item.kind]))
  return changes.flatMap((change) => {
    const partner = session.strips.find((strip) => strip.id === partnerOf(session, change.strip))
    const at =
      session.strips
        .find((strip) => strip.id === change.strip)
        ?.stages.findIndex((stage) => stage.id === change.stage) ?? -1
    const twin = partner?.stages[at]
    const kind = twin && kindOf.get(twin.gear)
    if (!partner || !twin || !kind || !settingsOf[kind].includes(change.setting)) return []
    if (changes.some((each) => each.stage === twin.id && each.setting === change.setting)) return []
    return [{ ...change, strip: partner.id, stage: twin.id }]
  })
}

function applyStructure(session: Session, change: StructureChange): Session {
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
          settings: { ...initialSettings(gear, change.port), ...leadOf(stage.settings) },
        }
      break
    }
  }
  return stages
}

const leadOf = ({ cable, capacitance }: Settings): Settings => ({
  ...(cable !== undefined && { cable }),
  ...(capacitance !== undefined && { capacitance }),
})

/** A stage id that nothing in the session bears. */
export function freeStageId(session: Session, strip: string): string {
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
