import { defineStore } from 'pinia'
import { computed } from 'vue'
import { dropoutRemediesOf } from '#core/diagnosis/dropout-steps'
import { hostUnit, timeSession } from '#core/timing/time-session'
import { timingAxes } from '#core/latency/axes'
import { useSessionStore } from './session'

/** Rates, buffers and recommendations of the open session, as committed. */
export const useTimingStore = defineStore('timing', () => {
  const store = useSessionStore()
  const timing = computed(() => (store.committed ? timeSession(store.committed) : null))
  const unit = computed(() => (store.committed ? hostUnit(store.committed) : null))
  const axes = computed(() =>
    store.committed && unit.value ? timingAxes(store.committed, unit.value) : { rates: [], buffers: [] },
  )
  const remedies = computed(() => (store.committed ? dropoutRemediesOf(store.committed) : []))
  const recommendationFor = (strip: string | undefined) =>
    timing.value?.recommendations.find((each) => each.strip === strip) ?? null
  return { timing, unit, axes, remedies, recommendationFor }
})
