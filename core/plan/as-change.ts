import type { SettingChange } from '../edits'
import type { SettingName } from '../model'
import { db } from '../units'

/** A setting that the plan wants otherwise than it is. */
export interface PlannedSetting {
  strip: string
  stage: string
  setting: SettingName
  from: number
  to: number
  reason: string
}

/** A planned setting as a change of the session: each side of a pair has its own, so none is mirrored. */
export const asChange = ({ strip, stage, setting, to }: PlannedSetting): SettingChange => ({
  strip,
  stage,
  setting,
  to: db(to),
})
