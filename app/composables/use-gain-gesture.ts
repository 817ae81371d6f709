import type { Ref } from 'vue'
import { onScopeDispose, ref } from 'vue'
import { nearestGain } from '#core/chain/settable-gain'
import { applyChanges } from '#core/edits'
import { inGesture } from '~/stores/gesture'
import { useSessionStore } from '~/stores/session'
import type { Turned } from './turned'

/** Gain steps for the large keys, dB. */
const LARGE = 6

/**
 * Setting a gain by hand: a drag shows every value at once and keeps the last on release, Esc takes it back,
 * a key sets and keeps at once.
 */
export function useGainGesture(control: Ref<Turned>) {
  const store = useSessionStore()
  const dragging = ref(false)
  let startGain = 0

  const change = (gain: number) => applyGain(nearestGain(control.value.range, gain))
  const applyGain = (to: number) => (session: Parameters<typeof applyChanges>[0]) =>
    applyChanges(session, control.value.change(to))

  function begin() {
    dragging.value = true
    startGain = control.value.value
    window.addEventListener('keydown', escape, true)
  }
  const drag = (by: number) => {
    if (dragging.value) store.preview(change(startGain + by))
  }
  function end() {
    if (!dragging.value) return
    stop()
    store.keepPreview(control.value.label)
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
    const { value, range } = control.value
    const step = range.gainStep || 0.5
    const wanted: Record<string, number> = {
      ArrowUp: value + step,
      ArrowRight: value + step,
      ArrowDown: value - step,
      ArrowLeft: value - step,
      PageUp: value + LARGE,
      PageDown: value - LARGE,
      Home: range.gainMin,
      End: range.gainMax,
    }
    const to = wanted[event.key]
    if (to === undefined || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    // A key held down is one step of undo.
    if (!event.repeat) store.endGesture()
    inGesture(`hold ${control.value.key}`, () => store.edit(control.value.label, change(to)))
  }

  onScopeDispose(cancel)
  return { dragging, begin, drag, end, cancel, key }
}
