import type { Monitor, System } from '#core/model'
import type { PlainPart } from '#core/edits'
import { withPart } from '#core/edits'
import { useStageEdit } from './use-stage-edit'

/** Edits of what all strips share – rate, buffer, driver, measurements – and of one strip's monitoring. */
export function useSystemEdit() {
  const edit = useStageEdit()
  return {
    system: (label: string, part: PlainPart<System>) =>
      edit.session(label, (session) => ({ ...session, system: withPart(session.system, part) })),
    /** Puts something into one of the system’s lists. */
    add: (label: string, list: 'roundTrips' | 'reported' | 'loads' | 'trials' | 'devices', item: object) =>
      edit.session(label, (session) => ({
        ...session,
        system: { ...session.system, [list]: [...(session.system[list] ?? []), item] },
      })),
    remove: (label: string, list: 'roundTrips' | 'reported' | 'loads' | 'trials' | 'devices', index: number) =>
      edit.session(label, (session) => {
        const left = (session.system[list] as readonly object[] | undefined)?.filter((_, i) => i !== index)
        return { ...session, system: { ...session.system, [list]: left && left.length > 0 ? left : undefined } }
      }),
    monitor: (label: string, part: PlainPart<Monitor>) =>
      edit.strip(label, (strip) => ({ ...strip, monitor: withPart(strip.monitor, part) })),
    strip: edit.strip,
    session: edit.session,
  }
}
