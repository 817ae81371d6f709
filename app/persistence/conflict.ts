/** Another tab wrote in between; nothing was written now. */
export class ConflictError extends Error {
  override readonly name = 'ConflictError'
}

/** A newer version of the program wrote this; nothing of it is changed. */
export class NewerDataError extends Error {
  override readonly name = 'NewerDataError'
}

/** A newer version of the program made this database; nothing in it is read or written. */
export class NewerDatabaseError extends Error {
  override readonly name = 'NewerDatabaseError'
}

/** The log has no room for another entry; the message says so in words. */
export class LogFullError extends Error {
  override readonly name = 'LogFullError'
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
