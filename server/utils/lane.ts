import { fileURLToPath } from 'node:url'
import type { Transferable } from 'node:worker_threads'
import Piscina from 'piscina'
import { Refusal } from './refusal'

/** Work of one kind that may wait for a free thread; what comes beyond is told at once to come again. */
const MOST_WAITING = 32

interface LaneOptions {
  readonly threads: number
  /** The longest that one piece of work may take once it runs, ms. */
  readonly limit: number
  /** The longest that it may wait before it runs, ms. */
  readonly patience: number
}

const busy = () =>
  new Refusal(503, 'Busy', 'Too much is being worked out at once. Send it again in a few seconds.', { retryAfter: 2 })
const tooLong = (limit: number) =>
  new Refusal(503, 'Took too long', `It was stopped after ${limit / 1000} s. Send less at once.`, { retryAfter: 30 })

/**
 * Threads of their own for one kind of work, so that it waits for its like alone. The queue is counted here: whoever finds it full, or
 * waits in it too long, is told.
 */
export class Lane {
  private readonly pool: Piscina
  private readonly waiting: (() => void)[] = []
  private running = 0

  constructor(private readonly options: LaneOptions) {
    this.pool = new Piscina({
      filename: fileURLToPath(new URL('./worker/answer.mjs', import.meta.url)),
      minThreads: 0,
      maxThreads: options.threads,
      idleTimeout: 30_000,
    })
  }

  /**
   * Runs a task of the worker's file.
   * @param ended ends the task early, where there is nobody left to answer
   */
  async run<T>(name: string, task: object, more: { transfer?: Transferable[]; ended?: AbortSignal } = {}): Promise<T> {
    await this.turn(more.ended)
    const late = AbortSignal.timeout(this.options.limit)
    const signal = more.ended ? AbortSignal.any([late, more.ended]) : late
    try {
      // The package takes its type of port from the DOM where that is known.
      return (await this.pool.run(task, { name, signal, transferList: more.transfer as never })) as T
    } catch (error) {
      if (late.aborted) throw tooLong(this.options.limit)
      throw error
    } finally {
      // Whoever waits takes the place over; nobody comes between.
      const next = this.waiting.shift()
      if (next) next()
      else this.running--
    }
  }

  /** Waits for a free thread. */
  private async turn(ended: AbortSignal | undefined): Promise<void> {
    if (this.running < this.options.threads) this.running++
    else {
      if (this.waiting.length >= MOST_WAITING) throw busy()
      await new Promise<void>((resolve, reject) => {
        const leave = (error: unknown) => {
          const at = this.waiting.indexOf(go)
          if (at >= 0) this.waiting.splice(at, 1)
          reject(error instanceof Error ? error : busy())
        }
        const timer = setTimeout(() => leave(busy()), this.options.patience)
        const gone = () => leave(ended?.reason)
        const go = () => {
          clearTimeout(timer)
          ended?.removeEventListener('abort', gone)
          resolve()
        }
        ended?.addEventListener('abort', gone, { once: true })
        this.waiting.push(go)
      })
    }
  }
}
