import { shallowRef, toRaw, watch } from 'vue'
import type { Session } from '#core/session'
import type { PlanForPage, PlanWork } from '~/workers/plan.worker'
import { tellLateTrouble } from './late-part'
import { WorkerLink } from './worker-link'

/**
 * The plan of a session that changes, worked out in a worker. While it is, the one before is shown; of several changes meanwhile only
 * the last is planned.
 */
export function usePlanning(session: () => Session | null) {
  const planned = shallowRef<{ session: Session; plan: PlanForPage } | null>(null)
  const planner = new WorkerLink<PlanWork>(
    'planner',
    () => new Worker(new URL('../workers/plan.worker.ts', import.meta.url), { type: 'module' }),
  )
  let running: Promise<void> | null = null

  /** Plans until what is planned is what is open. */
  async function follow() {
    for (let wanted = session(); wanted && planned.value?.session !== wanted; wanted = session()) {
      const now = wanted
      try {
        planned.value = { session: now, plan: await planner.ask<PlanForPage>((remote) => remote.plan(toRaw(now))) }
      } catch (error) {
        tellLateTrouble(error)
        return
      }
    }
  }
  function start(): Promise<void> {
    running ??= follow().finally(() => {
      running = null
    })
    return running
  }

  let watching = false
  /**
   * @returns once there is a plan of what is open; where the planner does not come, that is told, and it is asked for again with the
   *   next wish
   */
  async function fetch(): Promise<void> {
    if (!watching) {
      watching = true
      watch(session, () => void start())
    }
    await start()
  }
  return { planned, fetch }
}
