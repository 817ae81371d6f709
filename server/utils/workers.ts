import { availableParallelism } from 'node:os'
import type { MessagePort } from 'node:worker_threads'
import { MessageChannel } from 'node:worker_threads'
import type { Answers, Question, QuestionKind } from '#core/measure/question'
import type { Piece, SessionTask } from '../worker/answer'
import type { SessionAnswer } from '../worker/session-answer'
import { Lane } from './lane'

/** Pieces of a recording on their way to a worker at once. */
const MOST_UNDER_WAY = 8

// Heavy work leaves the server's own thread free for what is small, and leaves it a core where there is more than one.
const threads = Math.max(1, Math.min(4, availableParallelism() - 1))
/** Each kind of work waits for its like alone: a short one for no long one, and a session for no recording that comes slowly. */
const lanes = {
  short: new Lane({ threads, limit: 5000, patience: 5000 }),
  long: new Lane({ threads, limit: 20_000, patience: 10_000 }),
  recordings: new Lane({ threads: Math.max(2, threads), limit: 300_000, patience: 10_000 }),
}

/** Answers a session file in a worker, beside others that take as long. */
export const answerInWorker = (lane: 'short' | 'long', task: SessionTask): Promise<SessionAnswer> =>
  lanes[lane].run('answerSession', task)

/** A piece is handed over, not copied. */
const send = (port: MessagePort, piece: Piece) =>
  port.postMessage(piece, piece === 'end' ? [] : [piece.buffer as ArrayBuffer])

/** Measures a recording in a worker as it comes; no more of it is read than the worker keeps up with. */
export async function measureInWorker(
  question: Question,
  body: AsyncIterable<Uint8Array>,
): Promise<Answers[QuestionKind]> {
  const { port1: port, port2 } = new MessageChannel()
  const ended = new AbortController()
  let underWay = 0
  let wake = () => {}
  port.on('message', () => {
    underWay--
    wake()
  })
  try {
    const answer = lanes.recordings.run<Answers[QuestionKind]>(
      'measureRecording',
      { question, port: port2 },
      { transfer: [port2], ended: ended.signal },
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
    return await Promise.race([feed(), stopped])
  } catch (error) {
    // A body that broke off ends its measuring: the thread is free for the next one.
    ended.abort(error)
    throw error
  } finally {
    port.close()
  }
}
