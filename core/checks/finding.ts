import type { Change } from '../edits/change'
import type { FindingCode } from './finding-titles'

export type Severity = 'stop' | 'caution' | 'note'

/** Something about a strip that the engineer should know, and what to do about it. */
export interface Finding {
  code: FindingCode
  /** `stop`: the take would be spoiled or gear harmed. `caution`: see to it. `note`: good to know. */
  severity: Severity
  stage: string
  message: string
  action: string
  /** The action as changes, where it is one that a program can make. Each was tried: it cures this and spoils nothing. */
  changes?: Change[]
  /** It is about the connection before this stage. */
  joint?: true
}

/** One way to fix a finding: in words, and as changes of the session. */
export interface Fix {
  action: string
  changes: Change[]
}

/** A finding before its fixes were tried: `action` is what to do by hand where none of them holds. */
export interface Draft extends Omit<Finding, 'changes' | 'action'> {
  /** What to do by hand; a function where its figures take solving, and are worked out when somebody looks. */
  action: string | (() => string)
  /** The best first; made when they are to be tried, since a box for a fix takes longer than the finding. */
  fixes?: () => readonly Fix[]
  /** What has to be gone from the strip after a fix, besides the finding itself. */
  cures?: readonly FindingCode[]
}
