import { useResizeObserver } from '@vueuse/core'
import type { Ref } from 'vue'
import { ref } from 'vue'

/** The size of an element’s content as the browser reports it, px; 0 until then: asking at once would lay the page out a second time. */
export function useObservedSize(element: Ref<HTMLElement | null>) {
  const [width, height] = [ref(0), ref(0)]
  useResizeObserver(element, ([entry]) => {
    width.value = entry?.contentRect.width ?? 0
    height.value = entry?.contentRect.height ?? 0
  })
  return { width, height }
}
