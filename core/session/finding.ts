import type { SettingName } from './settings'

export type Severity = 'stop' | 'caution' | 'note'

/** A change of one setting of one stage. */
export interface SettingChange {
  strip: string
  stage: string
  setting: SettingName
  to: number | boolean
}

/** Something about a strip that the engineer should know, and what to do about it. */
export interface Finding {
  code: string
  /** `stop`: the take would be spoiled or gear harmed. `caution`: see to it. `note`: good to know. */
  severity: Severity
  stage: string
  message: string
  action: string
  /** The action as changes of settings, where it is one that a program can make. */
  changes?: SettingChange[]
}
