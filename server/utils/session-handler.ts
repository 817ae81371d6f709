import { setResponseHeader } from 'h3'
import type { SessionQuestion } from '../worker/answer'
import { answerSession } from '../worker/answer'
import type { SessionAnswer } from '../worker/session-answer'
import { apiHandler } from './api-handler'
import { readText } from './body'
import { Refusal } from './refusal'
import { answerInWorker } from './workers'

/** Up to this size a session is answered at once, in the time that handing it to a worker would take. */
const SMALL = 32 * 1024

/** What takes long whatever the size. */
const ALWAYS_APART: ReadonlySet<SessionQuestion> = new Set(['uncertainty', 'soundcheck', 'diagnose'])

/** A handler that reads a session file from the body and answers what the core says of it. */
export const sessionHandler = (question: SessionQuestion) =>
  apiHandler(async (event) => {
    const text = await readText(event)
    const answer: SessionAnswer =
      text.length <= SMALL && !ALWAYS_APART.has(question)
        ? answerSession({ question, text })
        : await answerInWorker(question, text)
    if (!answer.ok) throw refusalOf(answer.faults)
    setResponseHeader(event, 'content-type', 'application/json')
    return answer.json
  })

function refusalOf(errors: Extract<SessionAnswer, { ok: false }>['faults']): Refusal {
  const [first] = errors
  return first?.code === 'not-json'
    ? new Refusal(400, 'Not JSON', first.message, { errors })
    : new Refusal(422, 'Not a valid session', 'Mend what "errors" names and send it again. Nothing was kept.', {
        errors,
      })
}
