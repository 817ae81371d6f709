import { nextTick } from 'vue'
import { useRouter } from '#imports'
import type { NextMeasurement } from '#core/uncertainty/next'
import { useDataSheets } from '~/composables/use-data-sheets'
import { useBenchStore } from '~/stores/bench'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** Leads to where something is measured: its page on the bench, or its card on Path. */
export function useMeasureNext() {
  const store = useSessionStore()
  const view = useViewStore()
  const bench = useBenchStore()
  const sheets = useDataSheets()
  const router = useRouter()

  async function lead({ place, strip }: NextMeasurement) {
    view.select(strip)
    if (place.at === 'bench') {
      bench.page = place.page
      await router.push(`/bench/${store.key}?strip=${strip}`)
      return
    }
    view.selectStage(place.stage)
    // What is to be measured may be a figure of its data sheet.
    const stage = view.strip?.stages.find(({ id }) => id === place.stage)
    const gear = store.session?.gear.find(({ id }) => id === stage?.gear)
    if (gear && place.at === 'card') sheets.unfold(gear.kind)
    if (!router.currentRoute.value.path.startsWith('/path')) await router.push(`/path/${store.key}?strip=${strip}`)
    await nextTick()
    const card = document.querySelector<HTMLElement>(`#stage-${CSS.escape(place.stage)}`)
    card?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
    card?.querySelector<HTMLElement>('input, button')?.focus()
  }
  return { lead }
}
