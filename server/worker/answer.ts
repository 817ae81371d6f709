import type { MessagePort } from 'node:worker_threads'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { dropoutRemediesOf } from '#core/diagnosis/dropout-steps'
import type { Answers, Question, QuestionKind } from '#core/measure/question'
import { meterOf } from '#core/measure/question'
import { soundcheckOf } from '#core/soundcheck/soundcheck'
import { howSure } from '#core/uncertainty/how-sure'
import { planSession } from '#core/plan/plan-session'
import type { Session } from '#core/session'
import { readSessionText } from '#core/files'
import { timeSession } from '#core/timing/time-session'
import { answerDiagnose } from './answer-diagnose'
import { answerExplain } from './answer-explain'
import type { AnswerTypes } from '../contract/answer-types'
import type { endpoints } from '../contract/endpoints'
import type { SessionAnswer } from './session-answer'

/** The answer that an endpoint gives. */
type Gives<K extends string> = (typeof endpoints)[`/api/${K}` & keyof typeof endpoints]['gives'] & keyof AnswerTypes

const questions = {
  evaluate: evaluateSession,
  plan: planSession,
  timing: (session) => ({ ...timeSession(session), remedies: dropoutRemediesOf(session) }),
  uncertainty: (session, draws) => howSure(session, draws),
  soundcheck: soundcheckOf,
} satisfies {
  [K in 'evaluate' | 'plan' | 'timing' | 'uncertainty' | 'soundcheck']: (
    session: Session,
    draws: boolean,
  ) => AnswerTypes[Gives<K>]
}
export type SessionQuestion = keyof typeof questions | 'explain' | 'diagnose'

/** A body to be answered; `draws` where curved figures are to be drawn. */
export interface SessionTask {
  question: SessionQuestion
  text: string
  draws: boolean
}

export function answerSession({ question, text, draws }: SessionTask): SessionAnswer {
  if (question === 'explain') return answerExplain(text)
  if (question === 'diagnose') return answerDiagnose(text)
  // A log is no part of any answer, and is not read.
  const reading = readSessionText(text)
  return reading.ok ? { ok: true, json: JSON.stringify(questions[question](reading.session, draws)) } : reading
}

/** Bytes of a recording on their way to the worker, and the end of it. */
export type Piece = Uint8Array | 'end'

/** The longest that a worker waits for the next bytes, ms. */
const PATIENCE = 10_000

/** Measures a recording that arrives piece by piece through a port, and tells the port when it is ready for more. */
export function measureRecording({
  question,
  port,
}: {
  question: Question
  port: MessagePort
}): Promise<Answers[QuestionKind]> {
  const meter = meterOf(question)
  return new Promise((resolve, reject) => {
    const give = (up: () => void) => {
      clearTimeout(timer)
      port.close()
      up()
    }
    const giveUp = () => give(() => reject(new Error('the recording broke off')))
    let timer = setTimeout(giveUp, PATIENCE)
    port.on('close', giveUp)
    port.on('message', (piece: Piece) => {
      clearTimeout(timer)
      timer = setTimeout(giveUp, PATIENCE)
      try {
        if (piece === 'end') {
          const answer = meter.end()
          give(() => resolve(answer))
          return
        }
        meter.push(piece)
        port.postMessage('more')
      } catch (error) {
        give(() => reject(error))
      }
    })
  })
}
