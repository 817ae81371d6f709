import { initialSettings } from './complete'
import type { Gear } from './gear'
import type { Pair, Session, Strip } from './session'

/** Strips with the gear that stands in them, as they are brought into a session from elsewhere. */
export interface Bundle {
  gear: Gear[]
  strips: Strip[]
  pairs?: Pair[] | undefined
}

/**
 * Brings strips with their gear into a session under ids that are free there. Gear that the session has already, the
 * same in every value, is shared; a unit with several inputs is thereby one unit.
 */
export function addBundle(session: Session, bundle: Bundle): Session {
  const gearIds = new Set(session.gear.map((item) => item.id))
  const gearNames = new Map<string, string>()
  const added: Gear[] = []
  for (const item of bundle.gear) {
    const same = session.gear.find((each) => values(each) === values(item))
    const id = same ? same.id : free(item.id, gearIds)
    gearNames.set(item.id, id)
    gearIds.add(id)
    if (!same) added.push({ ...item, id })
  }
  const stripIds = new Set(session.strips.map((strip) => strip.id))
  const stageIds = new Set(session.strips.flatMap((strip) => strip.stages.map((stage) => stage.id)))
  const stripNames = new Map<string, string>()
  const byId = new Map([...session.gear, ...added].map((item) => [item.id, item]))
  const strips = bundle.strips.map((strip) => {
    const id = take(strip.id, stripIds)
    stripNames.set(strip.id, id)
    return {
      ...strip,
      id,
      stages: strip.stages.map((stage) => {
        const gear = gearNames.get(stage.gear) ?? stage.gear
        const box = byId.get(gear)
        return {
          ...stage,
          id: take(stage.id, stageIds),
          gear,
          settings: { ...(box && initialSettings(box, stage.port)), ...stage.settings },
        }
      }),
    }
  })
  const pairs = bundle.pairs?.map((pair) => ({
    ...pair,
    left: stripNames.get(pair.left) ?? pair.left,
    right: stripNames.get(pair.right) ?? pair.right,
  }))
  return {
    ...session,
    gear: [...session.gear, ...added],
    strips: [...session.strips, ...strips],
    ...(pairs && pairs.length > 0 && { pairs: [...(session.pairs ?? []), ...pairs] }),
  }
}

const values = (item: Gear) => JSON.stringify({ ...item, id: '' })

/** A strip with all its stages once more; the gear is shared. */
export function copyStrip(session: Session, stripId: string): Session {
  const strip = session.strips.find((each) => each.id === stripId)
  if (!strip) return session
  return addBundle(session, { gear: [], strips: [{ ...strip, name: `${strip.name.slice(0, 190)} (copy)` }] })
}

/** A session without a strip, without the gear that only it used, and without its pair. The last strip stays. */
export function removeStrip(session: Session, stripId: string): Session {
  if (session.strips.length < 2) return session
  const strips = session.strips.filter((strip) => strip.id !== stripId)
  const still = new Set(strips.flatMap((strip) => strip.stages.map((stage) => stage.gear)))
  const gone = new Set(session.strips.find((strip) => strip.id === stripId)?.stages.map((stage) => stage.gear))
  return {
    ...session,
    strips,
    gear: session.gear.filter((item) => still.has(item.id) || !gone.has(item.id)),
    pairs: unpaired(session, stripId),
  }
}

/** Two strips as a stereo pair; each leaves the pair that it was in. */
export function pairStrips(session: Session, left: string, right: string): Session {
  const others = unpaired({ ...session, pairs: unpaired(session, left) }, right) ?? []
  return { ...session, pairs: [...others, { left, right, monitoring: 'panned' }] }
}

/** The pairs without the one that a strip is in. */
export function unpaired(session: Session, stripId: string): Pair[] | undefined {
  const pairs = session.pairs?.filter((pair) => pair.left !== stripId && pair.right !== stripId)
  return pairs && pairs.length > 0 ? pairs : undefined
}

function take(wanted: string, taken: Set<string>): string {
  const id = free(wanted, taken)
  taken.add(id)
  return id
}

function free(wanted: string, taken: ReadonlySet<string>): string {
  if (!taken.has(wanted)) return wanted
  const stem = wanted.replace(/-\d+$/, '').slice(0, 56)
  for (let n = 2; ; n++) if (!taken.has(`${stem}-${n}`)) return `${stem}-${n}`
}
