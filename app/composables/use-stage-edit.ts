import { phantomChanges, phantomUses } from '#core/chain/phantom'
import { gearById, resolveStrip } from '#core/chain/resolve'
import type { AnalogueInput, Change, GearKind, GearOf, SettingName, SettingValue, Session, Stage } from '#core/session'
import { applyChanges, editGear, editInput, editStrip } from '#core/session'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The edits that a stage’s card makes. Each is committed at once and says in words why it was not taken. */
export function useStageEdit() {
  const store = useSessionStore()
  const view = useViewStore()
  const strip = () => view.strip?.id ?? ''
  const changes = (label: string, list: readonly Change[]) =>
    store.edit(label, (session) => applyChanges(session, list))

  return {
    changes,

    setting: (stage: string, setting: SettingName, label: string) => (to: SettingValue | undefined) =>
      to === undefined ? null : changes(label, [{ strip: strip(), stage, setting, to }]),

    /** A setting that may be left out, such as the length of a lead. */
    optionalSetting: (stage: string, setting: SettingName, label: string) => (to: SettingValue | undefined) =>
      store.edit(label, (session) =>
        editStrip(session, strip(), (each) =>
          withStage(each.stages, stage, (one) => ({ ...one, settings: { ...one.settings, [setting]: to } }), each),
        ),
      ),

    /** One switch may feed a bank: all strips on it change together. */
    phantom: (stage: string) => (to: boolean) =>
      store.edit('Phantom power', (session) => {
        const gear = gearById(session)
        const uses = phantomUses(
          session,
          session.strips.map((each) => resolveStrip(each, gear)),
        )
        const found = phantomChanges(uses, stage, to)
        return applyChanges(session, found.length > 0 ? found : [{ strip: strip(), stage, setting: 'phantom', to }])
      }),

    stage: (label: string, id: string, change: (stage: Stage) => Stage) =>
      store.edit(label, (session) => editStrip(session, strip(), (each) => withStage(each.stages, id, change, each))),

    gear:
      <K extends GearKind>(id: string, kind: K) =>
      (label: string, change: (gear: GearOf<K>) => GearOf<K>) =>
        store.edit(label, (session) => editGear(session, id, kind, change)),

    input: (unit: string, port: string) => (label: string, change: (input: AnalogueInput) => AnalogueInput) =>
      store.edit(label, (session) => editInput(session, unit, port, change)),

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
