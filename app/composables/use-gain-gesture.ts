import type { Ref } from 'vue'
import { onScopeDispose, ref } from 'vue'
import type { ResolvedInput } from '#core/chain/resolve'
import { nearestGain } from '#core/chain/settable-gain'
import { applyChanges } from '#core/session'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** Gain steps for the large keys, dB. */
const LARGE = 6

/**
 * Setting a gain by hand: a drag shows every value at once and keeps the last on release, Esc takes it back,
 * a key sets and keeps at once.
 */
export function useGainGesture(input: Ref<ResolvedInput>) {
  const store = useSessionStore()
  const view = useViewStore()
  const dragging = ref(false)
  let startGain = 0

  const change = (gain: number) => applyGain(nearestGain(input.value.specs, gain))
  const applyGain = (to: number) => (session: Parameters<typeof applyChanges>[0]) =>
    applyChanges(session, [{ strip: view.strip?.id ?? '', stage: input.value.id, setting: 'gain', to }])

  function begin() {
    dragging.value = true
    startGain = input.value.gain
    window.addEventListener('keydown', escape, true)
  }
  const drag = (by: number) => { if (dragging.value) store.preview(change(startGain + by)) }
  function end() {
    if (!dragging.value) return
    stop()
    store.keepPreview('Gain')
  }
  function cancel() {
    if (!dragging.value) return
    stop()
    store.cancelPreview()
  }
  function stop() {
    dragging.value = false
    window.removeEventListener('keydown', escape, true)
  }
  function escape(event: KeyboardEvent) {
    if (event.key !== 'Escape') return
    event.stopPropagation()
    cancel()
  }

  function key(event: KeyboardEvent) {
    const { gain, specs } = input.value
    const step = specs.gainStep || 0.5
    const wanted: Record<string, number> = {
      ArrowUp: gain + step, ArrowRight: gain + step, ArrowDown: gain - step, ArrowLeft: gain - step,
      PageUp: gain + LARGE, PageDown: gain - LARGE, Home: specs.gainMin, End: specs.gainMax,
    }
    const to = wanted[event.key]
    if (to === undefined || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    store.edit('Gain', change(to))
  }

  onScopeDispose(cancel)
  return { dragging, begin, drag, end, cancel, key }
}
