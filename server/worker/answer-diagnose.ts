import { diagnose } from '#core/diagnosis/diagnose'
import { readComplaint } from '#core/diagnosis/read-complaint'
import { readBody } from './read-body'
import type { SessionAnswer } from './session-answer'

/** The answer to `{ session, strip, symptoms, when, answers }`: what may be wrong, and what to check next. */
export function answerDiagnose(text: string): SessionAnswer {
  const body = readBody(text, '{ "session", "strip", "symptoms", "answers" }')
  if (!body.ok) return body
  const reading = readComplaint(body.asked, body.session)
  if (!reading.ok) return reading
  const { strip, complaint } = reading.asking
  return { ok: true, json: JSON.stringify(diagnose(body.session, strip, complaint)) }
}
