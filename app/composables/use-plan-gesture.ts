import { ref, watch } from 'vue'
import type { PlannedSetting } from '#core/plan/plan-session'
import { applyChanges } from '#core/session'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

export interface AppliedPlan {
  settings: (PlannedSetting & { stripName: string; gearName: string; several: boolean })[]
}

const LABEL = 'Set for me'

/** "Set for me": applies the plan as one change that can be undone, and remembers what it told. */
const applied = ref<AppliedPlan | null>(null)

export function usePlanGesture() {
  const store = useSessionStore()
  const view = useViewStore()

  function apply() {
    const { committed, plan } = store
    if (!committed || !plan) return
    const settings = plan.settings.map((setting) => {
      const strip = committed.strips.find((each) => each.id === setting.strip)
      const gear = strip?.stages.find((stage) => stage.id === setting.stage)?.gear
      return {
        ...setting,
        stripName: strip?.name ?? '',
        gearName: committed.gear.find((item) => item.id === gear)?.name ?? '',
        several: (plan.strips.find((each) => each.strip === setting.strip)?.gains.length ?? 0) > 1,
      }
    })
    store.edit(LABEL, (session) => applyChanges(session, plan.settings))
    // What is on the screen is told first.
    const own = (setting: { strip: string }) => (setting.strip === view.strip?.id ? 0 : 1)
    applied.value = { settings: settings.sort((a, b) => own(a) - own(b)) }
  }
  function takeBack() {
    if (store.undoLabel === LABEL) store.undo()
    applied.value = null
  }
  const dismiss = () => {
    applied.value = null
  }
  // What was told is about the settings of that moment: after another change or an undo it would be a lie.
  watch(
    () => store.committed,
    (now, before) => {
      if (before && store.undoLabel !== LABEL) dismiss()
    },
  )
  return { applied, apply, takeBack, dismiss }
}
