import type { RouteLocation } from 'vue-router'
import { onScopeDispose } from 'vue'
import { useRouter } from '#imports'

/** Tells where the page is on its way to while that is being loaded, as far as it set out since; `null` when it has arrived. */
export function useWayAhead() {
  const router = useRouter()
  let ahead: RouteLocation | null = null
  const stopListening = [
    router.beforeEach((to) => {
      ahead = to
    }),
    router.afterEach((to) => {
      if (ahead === to) ahead = null
    }),
  ]
  onScopeDispose(() => stopListening.forEach((stop) => stop()))
  return () => ahead
}
