import { blankGear } from './blank-gear'
import type { Domain } from '../model/domain'
import type { Gear } from '../gear'
import { traitsOf, isInterface, initialSettings } from '../gear'
import { nextId, nextName } from '../model/naming'
import type { Session } from '../session/session'
import type { Stage } from '../model/strip'

/** A strip made whole again, and what was taken out and put in for it, in words. */
export interface Fitting {
  session: Session
  told: string[]
}

/** What brings a signal from one domain to the next. */
const BRIDGES: Partial<Record<`${Domain} ${Domain}`, 'microphone' | 'interface'>> = {
  'sound analogue': 'microphone',
  'analogue digital': 'interface',
}

/**
 * After another source or box was put in: stages behind it that cannot take what it gives are passed over until one can, or what
 * is missing between is put in with usual figures.
 */
export function fitStrip(session: Session, stripId: string): Fitting {
  const strip = session.strips.find((each) => each.id === stripId)
  if (!strip) return { session, told: [] }
  const boxes = new Map(session.gear.map((item) => [item.id, item]))
  const made: Gear[] = []
  const told: string[] = []
  const stages: Stage[] = []
  let gives: Domain | null = null
  const rest = [...strip.stages]
  for (let stage = rest.shift(); stage; stage = rest.shift()) {
    const box = boxes.get(stage.gear)
    if (!box) continue
    const domains = traitsOf(box).domains(box, stage.port)
    if (domains.takes !== gives && stages.length > 0) {
      const bridge: 'microphone' | 'interface' | undefined =
        domains.takes && gives ? BRIDGES[`${gives} ${domains.takes}`] : undefined
      const later = rest.some((each) => {
        const next = boxes.get(each.gear)
        return next !== undefined && traitsOf(next).domains(next, each.port).takes === gives
      })
      if (later || !bridge) {
        told.push(`“${box.name}” was taken out: it cannot take what comes before it.`)
        continue
      }
      const put = placed(bridge)
      stages.push(put)
      told.push(`${bridge === 'microphone' ? 'A microphone' : 'An interface input'} was put in, with usual figures.`)
    }
    stages.push(stage)
    gives = domains.gives
  }
  if (told.length === 0) return { session, told }
  const used = new Set(
    session.strips.flatMap((each) => (each.id === stripId ? stages : each.stages)).map(({ gear }) => gear),
  )
  const before = new Set(session.strips.flatMap((each) => each.stages.map(({ gear }) => gear)))
  const gear = [...session.gear.filter((item) => used.has(item.id) || !before.has(item.id)), ...made]
  const strips = session.strips.map((each) => (each.id === stripId ? { ...each, stages } : each))
  return { session: { ...session, gear, strips }, told }

  function placed(kind: 'microphone' | 'interface'): Stage {
    const ids = new Set([...session.gear, ...made].map((item) => item.id))
    const names = new Set([...session.gear, ...made].map((item) => item.name))
    const box = blankGear(kind, nextId(kind, ids), nextName(`My ${kind}`, names))
    made.push(box)
    const port = isInterface(box) ? box.inputs[0]?.id : undefined
    const stageIds = new Set([...session.strips.flatMap((each) => each.stages), ...stages].map(({ id }) => id))
    return {
      id: nextId(`${stripId.slice(0, 50)}-1`, stageIds),
      gear: box.id,
      ...(port !== undefined && { port }),
      settings: initialSettings(box, port),
    }
  }
}
