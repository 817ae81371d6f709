import type { PhantomUse } from '../chain/phantom'
import type { Session } from '../session'
import type { LoudspeakerBus } from './feedback'

/** What stands around a strip. */
export interface Around {
  readonly session: Session
  readonly phantom: readonly PhantomUse[]
  /** The busses of the session that end in a loudspeaker. */
  readonly room: readonly LoudspeakerBus[]
}
