import { ref, watch } from 'vue'
import { useRoute, useRouter } from '#imports'
import type { Place } from './places'
import { useWayAhead } from './use-way-ahead'
import { latePart } from '~/stores/late-part'
import { useLibraryStore } from '~/stores/library'
import { GUEST_KEY } from '~/stores/second-screen'
import type { Shown } from '~/stores/session'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The session and the strip that the address names; without a name, the one to land in. */
export function useSessionRoute(place: Place) {
  const route = useRoute()
  const router = useRouter()
  const library = useLibraryStore()
  const store = useSessionStore()
  const view = useViewStore()
  /** What opening came to; `null` while it is under way. */
  const shown = ref<Shown | null>(null)

  async function open(key: unknown) {
    // Before the session is there, or the address would be set to its first strip.
    if (typeof route.query.strip === 'string') view.select(route.query.strip)
    if (typeof key === 'string' && key !== '') {
      shown.value = null
      const result = key === GUEST_KEY ? await showGuest() : await library.show(key)
      if (route.params.key === key) shown.value = result
      return
    }
    if (store.key) return router.replace(`/${place}/${store.key}`)
    const landing = await library.landing()
    await router.replace('key' in landing ? `/${place}/${landing.key}` : '/sessions')
  }
  /** A session of another device. The room stands behind the # of the link, and is not left in the address. */
  async function showGuest(): Promise<Shown> {
    const sharing = await latePart(() => import('~/sharing'))
    if (!sharing) return { state: 'trouble', why: 'The page that joins another device could not be loaded.' }
    const { hash } = route
    if (hash) void router.replace({ query: route.query, hash: '' })
    return sharing.joinSession(hash)
  }
  watch(() => route.params.key, open, { immediate: true })

  // What this tab had goes on under another key, where another tab changed it meanwhile.
  watch(
    () => store.parted,
    (parted) => {
      if (parted && parted.from === route.params.key) void router.replace(`/${place}/${store.key}`)
    },
  )

  // The strip stands in the address, so that a reload and a second tab show the same one.
  const ahead = useWayAhead()
  // An address that is set while another place is being loaded would call that off.
  const isLeaving = () => ahead() !== null && ahead()?.path !== router.currentRoute.value.path
  watch(
    [() => view.strip?.id, () => route.params.key, () => store.key],
    ([strip, key, openKey]) => {
      if (strip && openKey === key && route.query.strip !== strip && !isLeaving())
        void router.replace({ query: { ...route.query, strip } })
    },
    { immediate: true },
  )
  return { shown, again: () => open(route.params.key) }
}
