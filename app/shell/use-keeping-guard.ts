import { useEventListener } from '@vueuse/core'
import { useSessionStore } from '~/stores/session'
import { takeAllTyped } from '~/composables/use-typed-field'

/** Before the page goes away: what is being typed is taken, and the browser asks where something is nowhere but in this tab. */
export function useKeepingGuard() {
  const store = useSessionStore()
  useEventListener(window, 'beforeunload', (event) => {
    takeAllTyped()
    store.leaveNote()
    if (store.isUnkept()) event.preventDefault()
  })
  useEventListener(document, 'visibilitychange', () => {
    if (document.visibilityState !== 'hidden') return
    takeAllTyped()
    store.leaveNote()
    void store.copyNow()
  })
}
