import { computed } from 'vue'
import { withPart } from '#core/edits'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The recommended rate, buffer and way of listening for the strip on the screen, and setting them. */
export function useRecommendation() {
  const store = useSessionStore()
  const view = useViewStore()
  const best = computed(() => view.recommendation)
  const adopted = computed(() => {
    const system = store.committed?.system
    return (
      best.value !== null &&
      best.value.route === view.strip?.monitor.route &&
      view.strip.monitor.alsoHeard === undefined &&
      best.value.bufferFrames === system?.bufferFrames &&
      best.value.sampleRate === system.sampleRate
    )
  })
  function adopt() {
    const wanted = best.value
    if (!wanted) return
    store.edit('Adopt the recommendation', (session) => ({
      ...session,
      system: withPart(session.system, { sampleRate: wanted.sampleRate, bufferFrames: wanted.bufferFrames }),
      strips: session.strips.map((strip) =>
        strip.id === wanted.strip
          ? { ...strip, monitor: withPart(strip.monitor, { route: wanted.route, alsoHeard: undefined }) }
          : strip,
      ),
    }))
  }
  return { best, adopted, adopt }
}
