import type { H3Event } from 'h3'
import { getQuery, setResponseHeader } from 'h3'
import type { SessionQuestion } from '../worker/answer'
import { answerSession } from '../worker/answer'
import type { SessionAnswer } from '../worker/session-answer'
import { apiHandler } from './api-handler'
import { readText } from './body'
import { Refusal } from './refusal'
import { placeOf } from './session-work'
import { answerInWorker } from './workers'

/** A handler that reads a session file from the body and answers what the core says of it. */
export const sessionHandler = (question: SessionQuestion) =>
  apiHandler(async (event) => {
    const task = { question, text: await readText(event), draws: wantsDraws(event) }
    const place = placeOf(question, task.text)
    const answer: SessionAnswer = place === 'here' ? answerSession(task) : await answerInWorker(place, task)
    if (!answer.ok) throw refusalOf(answer.faults)
    setResponseHeader(event, 'content-type', 'application/json')
    return answer.json
  })

/** `?draws=0` asks for the straight line alone. */
function wantsDraws(event: H3Event): boolean {
  const { draws } = getQuery(event)
  if (draws === undefined || draws === '1') return true
  if (draws === '0') return false
  const message = `Got ${JSON.stringify(draws).slice(0, 80)}. Give 0 or 1.`
  throw new Refusal(422, 'Not a valid question', message, { errors: [{ path: 'draws', code: 'wrong-type', message }] })
}

function refusalOf(errors: Extract<SessionAnswer, { ok: false }>['faults']): Refusal {
  const [first] = errors
  return first?.code === 'not-json'
    ? new Refusal(400, 'Not JSON', first.message, { errors })
    : new Refusal(422, 'Not a valid session', 'Correct what "errors" names and send it again. Nothing was kept.', {
        errors,
      })
}
