import type { Fault } from './fault'
import type { Log } from './log'
import type { Session } from './session'

/** A session read, and the log that its file may carry besides. */
export type SessionReading = { ok: true; session: Session; log: Log | null } | { ok: false; faults: Fault[] }
