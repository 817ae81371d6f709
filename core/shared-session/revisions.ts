import jsonPatch from 'fast-json-patch'
import { patched } from '../files/stored-mark'
import { readEdited } from '../files/read-edited'
import { share } from '../model'
import type { Session, SessionChanges } from '../session'

/** What differs between two sessions, as a JSON Patch; parts that are the same object are not looked at. */
export const changesBetween = (from: Session, to: Session): SessionChanges =>
  jsonPatch.compare(from, to) as SessionChanges

export type Applied = { ok: true; session: Session } | { ok: false; why: string }

/** A session with changes of another device, read as if it came from a file; what did not change stays the same object. */
export function withChanges(session: Session, changes: SessionChanges): Applied {
  const raw = patched(session, changes)
  return raw === undefined
    ? { ok: false, why: 'These changes do not fit the session.' }
    : asRead(session, raw as Session)
}

/** A session that may be none, read where it differs from a known one. */
export function asRead(known: Session, raw: Session): Applied {
  const reading = readEdited(known, share(known, raw))
  return reading.ok
    ? { ok: true, session: share(known, reading.session) }
    : { ok: false, why: reading.faults[0]?.message ?? 'This cannot be.' }
}
