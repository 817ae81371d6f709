import { phantomChanges, phantomUses } from '#core/chain/phantom'
import { gearById, resolveStrip } from '#core/chain/resolve'
import type { GearKind, GearOf, SettingName, Session, Specified } from '#core/session'
import { applyChanges, editGear, editInput, editStrip } from '#core/session'
import { useSessionStore } from '~/stores/session'
import { useViewStore } from '~/stores/view'

/** The edits that a stage’s card makes. Each is committed at once and says in words why it was not taken. */
export function useStageEdit() {
  const store = useSessionStore()
  const view = useViewStore()
  const strip = () => view.strip?.id ?? ''

  return {
    setting: (stage: string, setting: SettingName, label: string) => (to: number | boolean | undefined) =>
      to === undefined ? null : store.edit(label, (session) => applyChanges(session, [{ strip: strip(), stage, setting, to }])),

    /** One switch may feed a bank: all strips on it change together. */
    phantom: (stage: string) => (to: boolean) => store.edit('Phantom power', (session) => {
      const gear = gearById(session)
      const uses = phantomUses(session, session.strips.map((each) => resolveStrip(each, gear)))
      return applyChanges(session, phantomChanges(uses, stage, to))
    }),

    gear: <K extends GearKind>(id: string, kind: K) => (label: string, change: (gear: GearOf<K>) => GearOf<K>) =>
      store.edit(label, (session) => editGear(session, id, kind, change)),

    input: (unit: string, port: string) => (label: string, change: <T extends Specified>(input: T) => T) =>
      store.edit(label, (session) => editInput(session, unit, port, change)),

    session: (label: string, change: (session: Session) => Session) => store.edit(label, change),

    strip: (label: string, change: Parameters<typeof editStrip>[2]) =>
      store.edit(label, (session) => editStrip(session, strip(), change)),
  }
}
