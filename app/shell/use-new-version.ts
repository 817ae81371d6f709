import { useEventListener } from '@vueuse/core'
import { onMounted, ref, shallowRef } from 'vue'

/** How often a page that stays open looks for a newer version, ms. */
const LOOK = 60 * 60 * 1000

/**
 * The service worker that lets everything work without the server, and a newer version that waits. It is offered, never forced: the
 * page goes on with the old one until it is asked for.
 */
export function useNewVersion() {
  const waiting = shallowRef<ServiceWorker | null>(null)
  const trouble = ref<string | null>(null)
  /** Another tab took the newer version: what this one has not loaded yet may be gone. */
  const taken = ref(false)
  let wanted = false

  function offer(registration: ServiceWorkerRegistration) {
    const look = (worker: ServiceWorker | null) => {
      // Without a page that it controls it is the first one, and there is nothing newer to offer.
      if (worker?.state === 'installed' && navigator.serviceWorker.controller) waiting.value = worker
    }
    look(registration.waiting)
    registration.addEventListener('updatefound', () => {
      const worker = registration.installing
      worker?.addEventListener('statechange', () => look(worker))
    })
    const update = () =>
      registration.update().catch(() => {
        // No server, no newer version: what is here goes on.
        trouble.value = null
      })
    setInterval(update, LOOK)
    // A tab that comes back after days looks at once.
    useEventListener(document, 'visibilitychange', () => {
      if (document.visibilityState === 'visible') void update()
    })
  }

  /** The first worker takes over a page that had none; a later one comes with a newer version. */
  function watchController() {
    let had = navigator.serviceWorker.controller !== null
    useEventListener(navigator.serviceWorker, 'controllerchange', () => {
      if (wanted) window.location.reload()
      else if (had) {
        waiting.value = null
        taken.value = true
      }
      had = true
    })
  }

  onMounted(async () => {
    if (!('serviceWorker' in navigator) || import.meta.dev) return
    watchController()
    try {
      offer(await navigator.serviceWorker.register('/sw.js'))
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : 'refused'
    }
  })

  /** Everything is kept before the page comes again with the new version. */
  async function use(keep: () => Promise<unknown>) {
    await keep()
    wanted = true
    if (taken.value) window.location.reload()
    else waiting.value?.postMessage({ type: 'SKIP_WAITING' })
  }
  /** What was told is read: this tab goes on as it is. */
  function later() {
    waiting.value = null
    taken.value = false
  }
  return { waiting, taken, trouble, use, later }
}
