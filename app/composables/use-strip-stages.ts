import { computed } from 'vue'
import { gearById, resolveStrip } from '#core/chain/resolve'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The selected strip’s stages joined with their gear, and what each is to be set to by the plan. */
export function useStripStages() {
  const store = useSessionStore()
  const view = useViewStore()
  const stages = computed(() => (store.session && view.strip ? resolveStrip(view.strip, gearById(store.session)) : []))
  const planned = (stage: string) => store.plan?.settings.find((each) => each.stage === stage)?.to ?? null
  return { stages, planned }
}
