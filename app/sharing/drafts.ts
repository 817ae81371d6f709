import { watch } from 'vue'
import type { Session } from '#core/session'
import { useSessionStore } from '~/stores/session'

/** A drag goes to the others at most so often, ms. */
const EVERY = 40

/** Hands on what is dragged here, as it moves, and that it is over. */
export function sendDrafts(isShared: () => boolean, send: (draft: Session | null) => void): () => void {
  const store = useSessionStore()
  let timer: ReturnType<typeof setTimeout> | undefined
  let isShown = false
  function sendNow() {
    timer = undefined
    const draft = isShared() ? store.draft : null
    if (draft || isShown) send(draft)
    isShown = draft !== null
  }
  const stop = watch(
    () => store.draft,
    (draft) => {
      if (draft === null) {
        clearTimeout(timer)
        sendNow()
      } else timer ??= setTimeout(sendNow, EVERY)
    },
  )
  return () => {
    stop()
    clearTimeout(timer)
  }
}
