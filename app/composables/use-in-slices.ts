import { delay } from 'es-toolkit'
import { onScopeDispose, ref, watch, computed } from 'vue'

/** The beginning of a long list, longer by a slice in every task, until all of it stands on the page. */
export function useInSlices<T>(list: () => readonly T[], slice: number) {
  const length = ref(slice)
  let growing = true
  async function grow() {
    while (growing && length.value < list().length) {
      await delay(0)
      length.value += slice
    }
  }
  watch(() => list().length, grow, { immediate: true })
  onScopeDispose(() => {
    growing = false
  })
  return computed(() => list().slice(0, length.value))
}
