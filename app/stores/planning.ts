import type { Remote } from 'comlink'
import { shallowRef, toRaw, watch } from 'vue'
import type { Plan } from '#core/plan/plan-session'
import type { Session } from '#core/session'
import type { PlanWork } from '~/workers/plan.worker'
import { tellLateTrouble } from './late-part'

/**
 * The plan of a session that changes, worked out in a worker. While it is, the one before is shown; of several changes meanwhile only
 * the last is planned.
 */
export function usePlanning(session: () => Session | null) {
  const planned = shallowRef<{ session: Session; plan: Plan } | null>(null)
  let work: Remote<PlanWork> | null = null
  let broken: Promise<never> | null = null
  let running: Promise<void> | null = null

  async function begin(): Promise<Remote<PlanWork>> {
    const { wrap } = await import('comlink')
    const worker = new Worker(new URL('../workers/plan.worker.ts', import.meta.url), { type: 'module' })
    broken = new Promise<never>((_, reject) => {
      worker.addEventListener('error', () => {
        work = null
        reject(new Error('The planner stopped.'))
      })
    })
    broken.catch(() => undefined) // told by whoever waits for it
    const begun = wrap<PlanWork>(worker)
    work = begun
    return begun
  }

  /** Plans until what is planned is what is open. */
  async function follow() {
    for (let wanted = session(); wanted && planned.value?.session !== wanted; wanted = session()) {
      const now = wanted
      try {
        const asked = (work ?? (await begin())).plan(toRaw(now)) as Promise<Plan>
        planned.value = { session: now, plan: await Promise.race([asked, broken as Promise<never>]) }
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
  /** @returns once there is a plan of what is open; where the planner does not come, that is told and asked for again with the next wish. */
  async function fetch(): Promise<void> {
    if (!watching) {
      watching = true
      watch(session, () => void start())
    }
    await start()
  }
  return { planned, fetch }
}
