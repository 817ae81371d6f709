import { isLoudspeaker } from '../gear'
import type { Session } from '../session'
import type { Strip } from '../model'
import { feedsOf } from '../model'

/**
 * The strips that nothing has changed for between two states of a session: the same by identity – an edit shares what it does
 * not touch –, and so is everything that leads to them.
 * @returns `null` where something of all strips changed: the gear, the room, the target, what stands where.
 */
export function unchanged(before: Session, now: Session): ReadonlySet<string> | null {
  const shared =
    before.system === now.system &&
    before.room === now.room &&
    before.target === now.target &&
    before.gear === now.gear &&
    before.pairs === now.pairs &&
    before.strips.length === now.strips.length
  if (!shared) return null
  const same = new Set<string>()
  const changed: Strip[] = []
  for (let i = 0; i < now.strips.length; i++) {
    const [old, strip] = [before.strips[i] as Strip, now.strips[i] as Strip]
    if (old === strip) same.add(strip.id)
    else if (isSetOtherwise(old, strip)) changed.push(strip)
    else return null
  }
  // What a changed strip feeds changes with it, however far down.
  const open = [...changed]
  const byId = new Map(now.strips.map((strip) => [strip.id, strip]))
  for (let strip = open.pop(); strip; strip = open.pop())
    for (const { to } of feedsOf(strip)) {
      const bus = byId.get(to)
      if (same.delete(to) && bus) open.push(bus)
    }
  // Loudspeakers of one room are heard by the same microphones: where one changes, all are judged again.
  const loudspeakers = new Set(now.gear.filter((item) => isLoudspeaker(item)).map(({ id }) => id))
  const speaking = now.strips.filter(({ stages }) => loudspeakers.has(stages.at(-1)?.gear ?? ''))
  if (speaking.some(({ id }) => !same.has(id))) for (const { id } of speaking) same.delete(id)
  return same
}

/** Whether two states of a strip differ in settings and levels alone: the same boxes at the same places, phantom as it was. */
function isSetOtherwise(before: Strip, now: Strip): boolean {
  return (
    before.id === now.id &&
    before.name === now.name &&
    before.kind === now.kind &&
    before.stages.length === now.stages.length &&
    feedsOf(before).length === feedsOf(now).length &&
    feedsOf(before).every(({ to }, i) => to === feedsOf(now)[i]?.to) &&
    before.stages.every((stage, i) => {
      const next = now.stages[i]
      return (
        next !== undefined &&
        stage.id === next.id &&
        stage.gear === next.gear &&
        stage.port === next.port &&
        stage.settings.phantom === next.settings.phantom
      )
    })
  )
}
