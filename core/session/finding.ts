import type { Change } from './change'

export type Severity = 'stop' | 'caution' | 'note'

/** Something about a strip that the engineer should know, and what to do about it. */
export interface Finding {
  code: string
  /** `stop`: the take would be spoiled or gear harmed. `caution`: see to it. `note`: good to know. */
  severity: Severity
  stage: string
  message: string
  action: string
  /** The action as changes, where it is one that a program can make. */
  changes?: Change[]
  /** It is about the joint before this stage. */
  joint?: true
}
