import { computed, shallowRef } from 'vue'
import type { FigureRef } from '#core/explain/explanation'
import { useViewStore } from '~/stores/view'

/** The figures that are asked for, from the first to the one that lies open: each led to the next. */
const asked = shallowRef<readonly FigureRef[]>([])

/** What a figure is made of: asked for anywhere, shown in one dialog, one step at a time. */
export function useExplaining() {
  const view = useViewStore()
  return {
    asked: computed(() => asked.value),
    /** A figure of the strip that is looked at. */
    explain: (figure: string, stage = '', strip = view.strip?.id ?? '') => {
      asked.value = [{ strip, stage, figure }]
    },
    into: (figure: FigureRef) => {
      asked.value = [...asked.value, figure]
    },
    back: () => {
      asked.value = asked.value.slice(0, -1)
    },
    close: () => {
      asked.value = []
    },
  }
}
