import type { Virtualizer } from '@tanstack/vue-virtual'
import { measureElement, useVirtualizer } from '@tanstack/vue-virtual'
import { computed, ref } from 'vue'

/**
 * A long list of which only what is in sight stands on the page.
 * @param items the whole list
 * @param usual height of an entry that was not measured yet, px
 */
export function useVirtualList<T extends { id: string }>(items: () => readonly T[], usual: number) {
  /** The element that scrolls; each entry in it has its place as `data-index`. */
  const scroller = ref<HTMLElement | null>(null)
  const list = useVirtualizer(
    computed(() => ({
      count: items().length,
      getScrollElement: () => scroller.value,
      estimateSize: () => usual,
      getItemKey: (i: number) => items()[i]?.id ?? i,
      overscan: 4,
      // A new entry is taken as usual until the browser reports its height: asking each at once lays the page out once for each.
      measureElement: (
        element: Element,
        entry: ResizeObserverEntry | undefined,
        virtual: Virtualizer<HTMLElement, Element>,
      ) =>
        entry
          ? measureElement(element, entry, virtual)
          : (virtual.measurementsCache[virtual.indexFromElement(element)]?.size ?? usual),
    })),
  )
  const shown = computed(() =>
    list.value.getVirtualItems().flatMap(({ index }) => {
      const item = items()[index]
      return item ? [{ index, item }] : []
    }),
  )
  /** Room for what is out of sight, px. */
  const above = computed(() => list.value.getVirtualItems()[0]?.start ?? 0)
  const below = computed(() => list.value.getTotalSize() - (list.value.getVirtualItems().at(-1)?.end ?? 0))
  /** For the `ref` of an entry: its height is measured as it comes. */
  function measure(entry: unknown) {
    const element = (entry as { $el?: unknown } | null)?.$el ?? entry
    if (element instanceof HTMLElement) list.value.measureElement(element)
  }
  /** Brings an entry into sight. */
  const reveal = (index: number) => {
    if (index >= 0 && index < items().length) list.value.scrollToIndex(index)
  }
  return { scroller, shown, above, below, measure, reveal }
}
