import { shallowRef } from 'vue'
import { phantomChanges, phantomUses } from '#core/chain/phantom'
import type { AnalogueInput, GearKind, GearOf, Gear } from '#core/gear'
import type { SettingName, SettingValue, Stage } from '#core/model'
import type { Session } from '#core/session'
import type { Change } from '#core/edits'
import { settleSettings, alsoIn, applyChanges, editGear, editInput, editStrip, isUnit, withOwnBox } from '#core/edits'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The last edit of a box that stands in other strips too, as the box was before. */
const sharedEdit = shallowRef<{ stage: string; before: Gear } | null>(null)

/** Settings that were moved because their box was changed. */
const settled = shallowRef<string | null>(null)

/** The edits that a stage’s card makes. Each is committed at once and says in words why it was not taken. */
export function useStageEdit() {
  const store = useSessionStore()
  const view = useViewStore()
  const strip = () => view.strip?.id ?? ''
  const changes = (label: string, list: readonly Change[]) =>
    store.edit(label, (session) => applyChanges(session, list))

  /** An edit of a box: settings that it has no more room for are moved with it, which is told. */
  function settling(label: string, change: (session: Session) => Session) {
    let moved: string[] = []
    const wrong = store.edit(label, (session) => {
      const result = settleSettings(change(session))
      moved = result.moved
      return result.session
    })
    if (wrong === null && moved.length > 0) settled.value = `${moved.join('; ')}. Undo takes both back.`
    return wrong
  }

  return {
    changes,
    settled,

    setting: (stage: string, setting: SettingName, label: string) => (to: SettingValue | undefined) =>
      to === undefined ? null : changes(label, [{ strip: strip(), stage, setting, to }]),

    /** A setting that may be left out, such as the length of a cable. */
    optionalSetting: (stage: string, setting: SettingName, label: string) => (to: SettingValue | undefined) =>
      store.edit(label, (session) =>
        editStrip(session, strip(), (each) =>
          withStage(each.stages, stage, (one) => ({ ...one, settings: { ...one.settings, [setting]: to } }), each),
        ),
      ),

    /** One switch may feed a bank: all strips on it change together. */
    phantom: (stage: string) => (to: boolean) =>
      store.edit('Phantom power', (session) => {
        const found = phantomChanges(phantomUses(session), stage, to)
        return applyChanges(session, found.length > 0 ? found : [{ strip: strip(), stage, setting: 'phantom', to }])
      }),

    stage: (label: string, id: string, change: (stage: Stage) => Stage) =>
      store.edit(label, (session) => editStrip(session, strip(), (each) => withStage(each.stages, id, change, each))),

    /** A box of any kind. One that stands in other strips too changes there as well, which is told. */
    box: (stage: string, id: string) => (label: string, change: (gear: Gear) => Gear) => {
      const before = store.committed
      const shared = before?.gear.find((item) => item.id === id)
      const wrong = settling(label, (session) => ({
        ...session,
        gear: session.gear.map((item) => (item.id === id ? change(item) : item)),
      }))
      if (wrong === null && before && shared && !isUnit(shared) && alsoIn(before, id, strip()).length > 0)
        sharedEdit.value = { stage, before: shared }
      return wrong
    },

    /** What was just changed is to be so in this strip only: the others keep the box as it was. */
    onlyHere: (stage: string, shared?: Gear) => {
      sharedEdit.value = null
      return store.edit('A device of its own', (session) => withOwnBox(session, strip(), stage, shared))
    },
    sharedEdit,

    gear:
      <K extends GearKind>(id: string, kind: K) =>
      (label: string, change: (gear: GearOf<K>) => GearOf<K>) =>
        settling(label, (session) => editGear(session, id, kind, change)),

    input: (unit: string, port: string) => (label: string, change: (input: AnalogueInput) => AnalogueInput) =>
      settling(label, (session) => editInput(session, unit, port, change)),

    session: (label: string, change: (session: Session) => Session) => store.edit(label, change),

    strip: (label: string, change: Parameters<typeof editStrip>[2]) =>
      store.edit(label, (session) => editStrip(session, strip(), change)),
  }
}

const withStage = <S extends { stages: Stage[] }>(
  stages: Stage[],
  id: string,
  change: (stage: Stage) => Stage,
  strip: S,
): S => ({ ...strip, stages: stages.map((stage) => (stage.id === id ? change(stage) : stage)) })
