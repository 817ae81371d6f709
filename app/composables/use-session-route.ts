import { ref, watch } from 'vue'
import { useRoute, useRouter } from '#imports'
import { useLibraryStore } from '~/stores/library'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The session and the strip that the address names; without a name, the one to land in. */
export function useSessionRoute(place: 'path' | 'timing' | 'monitoring' | 'bench') {
  const route = useRoute()
  const router = useRouter()
  const library = useLibraryStore()
  const store = useSessionStore()
  const view = useViewStore()
  const missing = ref(false)

  watch(
    () => route.params.key,
    async (key) => {
      // Before the session is there, or the address would be set to its first strip.
      if (typeof route.query.strip === 'string') view.select(route.query.strip)
      if (typeof key === 'string' && key !== '') {
        missing.value = !(await library.show(key))
        return
      }
      const landing = store.key ?? (await library.landing())
      await router.replace(landing ? `/${place}/${landing}` : '/sessions')
    },
    { immediate: true },
  )

  // The strip stands in the address, so that a reload and a second tab show the same one.
  watch([() => view.strip?.id, () => route.params.key], ([strip, key]) => {
    if (strip && store.key === key && route.query.strip !== strip)
      void router.replace({ query: { ...route.query, strip } })
  })
  return { missing }
}
