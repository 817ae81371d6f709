import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import type { MessagePort } from 'node:worker_threads'
import { MessageChannel } from 'node:worker_threads'
import Piscina from 'piscina'
import type { Answers, Question, QuestionKind } from '#core/measure/question'
import type { Piece, SessionQuestion } from '../worker/answer'
import type { SessionAnswer } from '../worker/session-answer'
import { Refusal } from './refusal'

/** Work that may wait for a free worker; what comes beyond is told to come again. */
const MOST_WAITING = 32

/** The longest that one piece of work may take, ms. */
const SESSION_LIMIT = 20_000
const RECORDING_LIMIT = 300_000

/** Pieces of a recording on their way to a worker at once. */
const MOST_UNDER_WAY = 8

// Heavy work leaves the server's own thread free for what is small, and leaves it a core where there is more than one.
const threads = Math.max(1, Math.min(4, availableParallelism() - 1))
const pool = () =>
  new Piscina({
    filename: fileURLToPath(new URL('./worker/answer.mjs', import.meta.url)),
    minThreads: 0,
    maxThreads: threads,
    maxQueue: MOST_WAITING,
    idleTimeout: 30_000,
  })
// Recordings have a pool of their own: slow ones must not keep sessions waiting.
const sessions = pool()
const recordings = pool()

const busy = () =>
  new Refusal(503, 'Busy', 'Too much is being worked out at once. Send it again in a few seconds.', { retryAfter: 2 })
const tooLong = (limit: number) =>
  new Refusal(503, 'Took too long', `It was stopped after ${limit / 1000} s. Send less at once.`, { retryAfter: 30 })

async function inTime<T>(limit: number, run: (signal: AbortSignal) => Promise<T>): Promise<T> {
  const signal = AbortSignal.timeout(limit)
  try {
    return await run(signal)
  } catch (error) {
    if (signal.aborted) throw tooLong(limit)
    if (error instanceof Error && /queue is at limit/i.test(error.message)) throw busy()
    throw error
  }
}

/** Answers a session file in a worker. */
export const answerInWorker = (question: SessionQuestion, text: string): Promise<SessionAnswer> =>
  inTime(SESSION_LIMIT, (signal) => sessions.run({ question, text }, { name: 'answerSession', signal }))

/** A piece is handed over, not copied. */
const send = (port: MessagePort, piece: Piece) =>
  port.postMessage(piece, piece === 'end' ? [] : [piece.buffer as ArrayBuffer])

/** Measures a recording in a worker as it comes; no more of it is read than the worker keeps up with. */
export async function measureInWorker(
  question: Question,
  body: AsyncIterable<Uint8Array>,
): Promise<Answers[QuestionKind]> {
  const { port1: port, port2 } = new MessageChannel()
  let underWay = 0
  let wake = () => {}
  port.on('message', () => {
    underWay--
    wake()
  })
  try {
    return await inTime(RECORDING_LIMIT, async (signal) => {
      const answer = recordings.run(
        { question, port: port2 },
        // The package takes its type of port from the DOM where that is known.
        { name: 'measureRecording', transferList: [port2] as never, signal },
      )
      const stopped = new Promise<never>((_, reject) => answer.catch(reject))
      stopped.catch(() => wake())
      const feed = async () => {
        for await (const piece of body) {
          // A copy of its own, which can be handed over: the piece may be a part of a larger buffer.
          const bytes = new Uint8Array(piece)
          send(port, bytes)
          underWay++
          while (underWay >= MOST_UNDER_WAY) await Promise.race([new Promise<void>((done) => (wake = done)), stopped])
        }
        send(port, 'end')
        return answer
      }
      return Promise.race([feed(), stopped])
    })
  } finally {
    port.close()
  }
}
