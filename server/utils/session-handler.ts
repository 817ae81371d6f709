import { defineEventHandler } from 'h3'
import type { Session } from '#core/session'
import { readSessionText } from '#core/session'
import { LARGEST_BODY, readText } from './body'
import { answerProblem } from './problem'

/** A handler that reads a session file from the body, hands it to a function of the core, and answers its result. */
export const sessionHandler = <T>(answer: (session: Session) => T) =>
  defineEventHandler(async (event) => {
    const text = await readText(event)
    if (text === null) {
      return answerProblem(
        event,
        413,
        'Too large',
        `The body is larger than ${LARGEST_BODY} bytes. Send one session at a time.`,
      )
    }
    const reading = readSessionText(text)
    if (reading.ok) return answer(reading.session)
    const [first] = reading.faults
    return first?.code === 'not-json'
      ? answerProblem(event, 400, 'Not JSON', first.message, reading.faults)
      : answerProblem(
          event,
          422,
          'Not a valid session',
          'Mend what "errors" names and send it again. Nothing was kept.',
          reading.faults,
        )
  })
