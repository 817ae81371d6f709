import type { MessagePort } from 'node:worker_threads'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { dropoutRemediesOf } from '#core/diagnosis/dropout-steps'
import type { Answers, Question, QuestionKind } from '#core/measure/question'
import { meterOf } from '#core/measure/question'
import { soundcheckOf } from '#core/soundcheck/soundcheck'
import { howSure } from '#core/uncertainty/how-sure'
import { planSession } from '#core/plan/plan-session'
import type { Session } from '#core/session'
import { readSessionFile } from '#core/session/session-file'
import { timeSession } from '#core/timing/time-session'
import { answerDiagnose } from './answer-diagnose'
import { answerExplain } from './answer-explain'
import type { SessionAnswer } from './session-answer'

const questions = {
  evaluate: evaluateSession,
  plan: planSession,
  timing: (session) => ({ ...timeSession(session), remedies: dropoutRemediesOf(session) }),
  uncertainty: howSure,
  soundcheck: soundcheckOf,
} satisfies Record<string, (session: Session) => unknown>
export type SessionQuestion = keyof typeof questions | 'explain' | 'diagnose'

export function answerSession({ question, text }: { question: SessionQuestion; text: string }): SessionAnswer {
  if (question === 'explain') return answerExplain(text)
  if (question === 'diagnose') return answerDiagnose(text)
  const reading = readSessionFile(text)
  return reading.ok ? { ok: true, json: JSON.stringify(questions[question](reading.session)) } : reading
}

/** Bytes of a recording on their way to the worker; the end of it; that its sender has gone. */
export type Piece = Uint8Array | 'end'

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
    port.on('message', (piece: Piece) => {
      try {
        if (piece === 'end') {
          port.close()
          resolve(meter.end())
          return
        }
        meter.push(piece)
        port.postMessage('more')
      } catch (error) {
        port.close()
        reject(error)
      }
    })
  })
}
