import type { Domain } from '../model/domain'
import { traitsOf } from '../gear'
import type { Session } from './session'
import type { Feed, Stage, Strip } from '../model/strip'
import { leadsTo } from '../model/strip'

const domainsAt = (session: Session, { gear, port }: Stage) => {
  const box = session.gear.find(({ id }) => id === gear)
  return box ? traitsOf(box).domains(box, port) : null
}

/** What a bus takes: sound, volts or numbers. */
export const takenBy = (session: Session, { stages: [first] }: Strip): Domain | null =>
  first ? (domainsAt(session, first)?.takes ?? null) : null

/** What a send gives from where it is taken. */
export function givenBy(session: Session, { stages }: Strip, { from }: Pick<Feed, 'from'>): Domain | null {
  const stage = from === undefined ? stages.at(-1) : stages.find(({ id }) => id === from)
  return stage ? (domainsAt(session, stage)?.gives ?? null) : null
}

/**
 * From where a strip can feed a bus: the last stage behind which it gives what the bus takes.
 * @returns `undefined` for its last stage; `null` where none does, or the bus leads to the strip itself
 */
export function feedFrom(session: Session, strip: Strip, bus: Strip): string | undefined | null {
  const boxes = new Map(session.gear.map((item) => [item.id, item]))
  const takes = takenBy(session, bus)
  if (strip.id === bus.id || leadsTo(session.strips, bus, strip.id)) return null
  const at = strip.stages.findLastIndex((stage, i) => {
    const box = boxes.get(stage.gear)
    const isStrong = box && traitsOf(box).feedsBus[i === strip.stages.length - 1 ? 'last' : 'between']
    return isStrong && domainsAt(session, stage)?.gives === takes
  })
  if (at < 0) return null
  return at === strip.stages.length - 1 ? undefined : strip.stages[at]?.id
}
