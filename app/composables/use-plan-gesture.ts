import { delay } from 'es-toolkit'
import { ref, watch } from 'vue'
import type { PlannedSetting } from '#core/plan/as-change'
import { asChange } from '#core/plan/as-change'
import type { Session } from '#core/session'
import { applySettings, partnerOf } from '#core/edits'
import { readEdited } from '#core/files'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** What "Set for me" covers: the strip on the screen, with its stereo partner, or all of them. */
export type PlanScope = 'strip' | 'all'

interface ToldSetting extends PlannedSetting {
  stripName: string
  gearName: string
  several: boolean
}

const LABEL = 'Set for me'

/** "Set for me": applies the plan as one change that can be undone, and remembers what it told. */
const applied = ref<{ settings: ToldSetting[] } | null>(null)

/** Whether a planned setting is set already: a plan follows a moment behind. */
function stands({ strips }: Session, { strip, stage, setting, to }: PlannedSetting): boolean {
  const found = strips.find((each) => each.id === strip)?.stages.find((each) => each.id === stage)
  return !found || found.settings[setting] === to
}

export function usePlanGesture() {
  const store = useSessionStore()
  const view = useViewStore()

  /** What would be set; what is on the screen first. */
  function settingsFor(scope: PlanScope): ToldSetting[] {
    const { committed, plan } = store
    if (!committed || !plan) return []
    const shown = view.strip?.id ?? ''
    const covered = new Set([shown, partnerOf(committed, shown)])
    const own = ({ strip }: PlannedSetting) => (strip === shown ? 0 : 1)
    return plan.settings
      .filter(({ strip }) => scope === 'all' || covered.has(strip))
      .filter((setting) => !stands(committed, setting))
      .map((setting) => {
        const strip = committed.strips.find((each) => each.id === setting.strip)
        const gear = strip?.stages.find((stage) => stage.id === setting.stage)?.gear
        return {
          ...setting,
          stripName: strip?.name ?? '',
          gearName: committed.gear.find((item) => item.id === gear)?.name ?? '',
          several: (plan.strips.find((each) => each.strip === setting.strip)?.gains.length ?? 0) > 1,
        }
      })
      .sort((a, b) => own(a) - own(b))
  }

  async function apply(scope: PlanScope) {
    await store.fetchPlanner()
    const settings = settingsFor(scope)
    const { committed } = store
    if (!committed) return
    const set = (session: Session) => applySettings(session, settings.map(asChange))
    // A desk of 64 strips is read in one task and shown in the next.
    const read = readEdited(committed, set(committed))
    await delay(0)
    store.edit(LABEL, (session) => (session === committed && read.ok ? read.session : set(session)))
    applied.value = { settings }
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
  return { applied, settingsFor, apply, takeBack, dismiss }
}
