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
    setInterval(() => {
      registration.update().catch(() => {
        // No server, no newer version: what is here goes on.
        trouble.value = null
      })
    }, LOOK)
  }

  onMounted(async () => {
    if (!('serviceWorker' in navigator) || import.meta.dev) return
    try {
      offer(await navigator.serviceWorker.register('/sw.js'))
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : 'refused'
    }
  })

  /** Everything is kept before the page comes again with the new version. */
  async function use(keep: () => Promise<unknown>) {
    await keep()
    navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), { once: true })
    waiting.value?.postMessage({ type: 'SKIP_WAITING' })
  }
  return { waiting, trouble, use }
}
