import type { H3Event } from 'h3'
import type { Answers, Question } from '#core/measure/question'
import { readPieces } from './body'
import { Refusal } from './refusal'
import { measureInWorker } from './workers'

type Found<Q extends Question> = Extract<Answers[Q['kind']], { ok: true }>

/** Asks a question of the recording in the body, as it arrives; nothing of it is kept. A fault of the file is a problem of the body. */
export async function measureBody<Q extends Question>(event: H3Event, question: Q): Promise<Found<Q>> {
  const answer = await measureInWorker(question, readPieces(event))
  if (answer.ok) return answer as Found<Q>
  const { code, message } = answer.fault
  throw new Refusal(422, 'Not a recording that can be measured', message, { errors: [{ path: '', code, message }] })
}
