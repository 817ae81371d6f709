import { delay } from 'es-toolkit'
import type { Steps } from '#core/evaluation/steps'

/** How long work goes on before the page has its turn, ms: with the longest step, well below what a hand would feel. */
const SLICE = 20

/**
 * Does work in tasks of a few steps each.
 * @param isWanted asked between the tasks
 * @returns what the work came to, or `undefined` where nobody wants it any more
 */
export async function inTasks<T>(steps: Steps<T>, isWanted: () => boolean = () => true): Promise<T | undefined> {
  for (;;) {
    await delay(0)
    if (!isWanted()) return undefined
    const until = performance.now() + SLICE
    do {
      const step = steps.next()
      if (step.done) return step.value
    } while (performance.now() < until)
  }
}
