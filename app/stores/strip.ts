import { defineStore } from 'pinia'
import { useWindowSize } from '@vueuse/core'
import { computed } from 'vue'
import { describeJoints } from '#core/checks/describe-joint'
import { stripControls } from '#core/chain/gain-control'
import { phantomUses } from '#core/chain/phantom'
import { stagesOf } from '#core/resolved/resolve-session'
import { isBus } from '#core/model'
import { useSessionStore } from './session'
import { useViewStore } from './view'

/** A stage's card needs that much width, px; where there is less for each, they shrink to their gains and one is shown in full. */
const CARD = 180

/** Widths below which the right column stands below, and the rail becomes a bar, px: as in the style sheet. */
const COLUMN = 1200
const RAIL = 900
const CARD_BY_CARD = 640

/** The selected strip's stages joined with their gear, their gains and joints, and what each is to be set to by the plan. */
export const useStripStore = defineStore('strip', () => {
  const store = useSessionStore()
  const view = useViewStore()

  const stages = computed(() => (store.session && view.strip ? stagesOf(store.session, view.strip) : []))
  const controls = computed(() => stripControls(stages.value))
  const joints = computed(() => {
    const { session } = store
    if (!session) return []
    return describeJoints(stages.value, view.evaluated?.findings ?? [], phantomUses(session))
  })
  const { width } = useWindowSize()
  /** What is left for the section beside the rail and the right column, px. */
  const room = computed(() => width.value - (width.value >= RAIL ? 180 : 60) - (width.value >= COLUMN ? 310 : 0))
  const isCompact = computed(() => width.value < CARD_BY_CARD)
  // What flows into a bus stands before its stages, wider than one of them.
  const columns = computed(() => stages.value.length + (view.strip && isBus(view.strip) ? 1.5 : 0))
  const isLong = computed(() => room.value / columns.value < CARD)
  const selected = computed(() => stages.value.find((stage) => stage.id === view.stage) ?? stages.value[0] ?? null)
  const planned = (stage: string, setting: 'gain' | 'fader') =>
    store.plan?.settings.find((each) => each.stage === stage && each.setting === setting)?.to ?? null

  return { stages, controls, joints, isLong, isCompact, selected, planned }
})
