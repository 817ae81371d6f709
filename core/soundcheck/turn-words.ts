import { gainControls } from '../chain/gain-control'
import { gainInWords, stageName } from '../chain/setting-words'
import type { SettingChange } from '../edits'
import { stagesOf } from '../resolved/resolve-session'
import type { Session } from '../session'
import { formatShort } from '../units'

/** A gain that is to be turned: where, from what, and to what, as a hand sets it. */
export interface TurnWords {
  where: string
  from: string
  to: string
}

/** @returns `null` where the stage or its gain is gone */
export function turnWords(session: Session, change: SettingChange): TurnWords | null {
  const strip = session.strips.find(({ id }) => id === change.strip)
  const stage = strip && stagesOf(session, strip).find(({ id }) => id === change.stage)
  const control = stage && gainControls(stage).find(({ setting }) => setting === change.setting)
  if (!stage || !control) return null
  return {
    where: stageName(stage),
    from: formatShort(control.value, 1),
    to: gainInWords({ ...control, value: Number(change.to) }),
  }
}
