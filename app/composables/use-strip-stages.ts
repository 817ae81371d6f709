import { storeToRefs } from 'pinia'
import { useStripStore } from '~/stores/strip'

/** The selected strip as the screen takes it apart; worked out once for all that show a part of it. */
export function useStripStages() {
  const strip = useStripStore()
  return { ...storeToRefs(strip), planned: strip.planned }
}
