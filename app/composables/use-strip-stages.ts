import { computed } from 'vue'
import { describeJoints } from '#core/chain/describe-joint'
import { stripControls } from '#core/chain/gain-control'
import { phantomUses } from '#core/chain/phantom'
import { gearById, resolveStrip } from '#core/chain/resolve'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** With more stages than this the cards shrink to their gains, and one of them is shown in full. */
const MOST_FULL_CARDS = 4

/** The selected strip’s stages joined with their gear, their gains and joints, and what each is to be set to by the plan. */
export function useStripStages() {
  const store = useSessionStore()
  const view = useViewStore()
  const gear = computed(() => (store.session ? gearById(store.session) : new Map()))
  const stages = computed(() => (store.session && view.strip ? resolveStrip(view.strip, gear.value) : []))
  const controls = computed(() => stripControls(stages.value))
  const joints = computed(() => {
    const { session } = store
    if (!session) return []
    const phantom = phantomUses(session, session.strips.map((strip) => resolveStrip(strip, gear.value)))
    return describeJoints(stages.value, view.evaluated?.findings ?? [], phantom)
  })
  const planned = (stage: string, setting: 'gain' | 'fader') =>
    store.plan?.settings.find((each) => each.stage === stage && each.setting === setting)?.to ?? null
  const isLong = computed(() => stages.value.length > MOST_FULL_CARDS)
  const selected = computed(() => stages.value.find((stage) => stage.id === view.stage) ?? stages.value[0] ?? null)
  return { stages, controls, joints, planned, isLong, selected }
}
