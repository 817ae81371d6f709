/** Another tab wrote in between; nothing was written now. */
export class ConflictError extends Error {
  override readonly name = 'ConflictError'
}

/** The session is no longer there to be written: deleted by another tab, or its storage was cleared. */
export class GoneError extends Error {
  override readonly name = 'GoneError'
  constructor(readonly how: 'deleted' | 'absent') {
    super(`the session is ${how}`)
  }
}

/** Deleted sessions can be restored on that many days of use. */
export const RESTORABLE_DAYS = 30
