import { readSession } from '../files/read'
import type { AudioInterface } from '../gear'
import type { Session } from '../session/session'
import { SESSION_FORMAT, SESSION_VERSION } from '../session/session'
import { addFedBus } from './busses'
import { applyChanges } from './change'
import type { StartAnswers } from './start-answers'
import { bussesFor, chainOf, inputFor, kindAt, namesOf, needsPhantom, recordables } from './start-answers'
import type { Placed } from './start-gear'
import { boxesBefore, countedIds, groupUnit, unitFor } from './start-gear'

/**
 * A session from the answers at the start, with the usual figures of each kind (common practice, no source), marked as assumed until
 * they are given. It is not planned yet. Channels of a desk that has a group come into the host by the group alone: one after the
 * other, not side by side.
 */
export function startSession(id: string, name: string, answers: StartAnswers): Session {
  const chain = chainOf(answers)
  const names = namesOf(answers)
  const each = names.map((called, i) => ({
    ...answers,
    name: called,
    what: kindAt(answers, called, i),
    loudness: answers.loudnesses?.[i] ?? answers.loudness,
  }))
  const busses = bussesFor(answers).filter((use) => answers.into?.includes(use))
  const inSeries = busses.includes('group')
  const inputs = each.map((own) => inputFor(own, chain))
  const unit = inSeries ? groupUnit() : unitFor(inputs, countedIds(inputs))
  const strips = each.map((own, i) => {
    const boxes = boxesBefore(own, chain, own.name, i + 1, names.length > 1)
    const phantom = inputs[i] === 'mic' && needsPhantom(own)
    const end: Placed = { gear: unit, port: unit.inputs[i]?.id, settings: phantom ? { phantom } : {} }
    const stages = (inSeries ? boxes : [...boxes, end]).map(({ gear, ...placed }, k) => ({
      id: `strip-${i + 1}-${k + 1}`,
      gear: gear.id,
      ...placed,
    }))
    const monitor = { output: 'phones', ...(answers.hears && { route: answers.hears }) }
    const { listensTo } = recordables[own.what]
    const strip = { id: `strip-${i + 1}`, name: own.name, stages, monitor, performer: { listensTo } }
    return { boxes, strip }
  })
  const reading = readSession({
    format: SESSION_FORMAT,
    version: SESSION_VERSION,
    id,
    name,
    gear: [...strips.flatMap(({ boxes }) => boxes.map(({ gear }) => gear)), unit],
    strips: strips.map(({ strip }) => strip),
  })
  if (!reading.ok) throw new Error(`The start is faulty: ${reading.faults[0]?.path} ${reading.faults[0]?.message}`)
  return busses.reduce(
    (session, use) => (use === 'group' ? withGroupInput(addFedBus(session, use), unit) : addFedBus(session, use)),
    reading.session,
  )
}

/** The group comes into the host by its own input. */
const withGroupInput = (session: Session, unit: AudioInterface): Session =>
  session.strips
    .slice(-1)
    .reduce(
      (current, { id, stages }) =>
        applyChanges(current, [
          { do: 'insert', strip: id, index: stages.length, gear: unit, port: unit.inputs[0]?.id ?? '' },
        ]),
      session,
    )
