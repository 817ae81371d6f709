import jsonPatch from 'fast-json-patch'
import type { Mark, MarkHead, SessionChanges, StoredMark } from '../session/log'
import type { Session } from '../session/session'

/** Changes are stored instead of a session where they take at most this share of its characters. */
const WORTHWHILE = 0.5

/** A session as it stands in a file, without keys that hold nothing. */
const asStored = (session: Session): Session => JSON.parse(JSON.stringify(session)) as Session

/** A mark as it is stored: as changes against an earlier whole mark where that is much smaller, otherwise whole. */
export function storedMark(mark: Mark, whole: Mark | null): StoredMark {
  const { session: kept, ...head } = mark
  const session = asStored(kept)
  if (!whole || whole.id === mark.id) return { ...head, session }
  const changes = jsonPatch.compare(asStored(whole.session), session) as SessionChanges
  const smaller = JSON.stringify(changes).length <= WORTHWHILE * JSON.stringify(session).length
  return smaller ? { ...head, from: whole.id, changes } : { ...head, session }
}

/**
 * The session of a stored mark, not yet validated.
 * @param whole the mark that `from` names
 * @returns `undefined` where the changes do not fit that mark's session, or there is none
 */
export function sessionAsStored(stored: StoredMark, whole: StoredMark | undefined): unknown {
  if ('session' in stored) return stored.session
  if (!whole || !('session' in whole)) return undefined
  return patched(whole.session, stored.changes)
}

/** Applies changes to a copy of a session; `undefined` where one of them does not fit. */
export function patched(session: unknown, changes: SessionChanges): unknown {
  const copy = jsonPatch.deepClone(session) as unknown
  try {
    return jsonPatch.applyPatch(copy, changes as never, true, true, true).newDocument
  } catch (error) {
    if (error instanceof jsonPatch.JsonPatchError || error instanceof TypeError) return undefined
    throw error
  }
}

/** What a list shows of a mark, without its session. */
export function headOf(mark: MarkHead & Partial<Record<'session' | 'from' | 'changes', unknown>>): MarkHead {
  const { session: _session, from: _from, changes: _changes, ...head } = mark
  return head
}
