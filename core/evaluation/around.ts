import type { Point } from '../chain/cascade'
import type { PhantomUse } from '../chain/phantom'
import type { Session } from '../session'

/** What stands around a strip. */
export interface Around {
  readonly session: Session
  readonly phantom: readonly PhantomUse[]
  /** What is known of the strips that lead to it. */
  readonly pointsOf: (strip: string) => readonly Point[] | undefined
}
