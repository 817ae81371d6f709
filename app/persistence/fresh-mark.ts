/**
 * The key of a session that this tab shows and has not kept yet: a first visit that is reloaded before the storage was fetched is a
 * first visit still. Where the tab cannot note it, the reload says that there is no such session.
 */
const KEY = 'remetra-fresh-session'

export function markFresh(key: string | null): void {
  try {
    if (key === null) sessionStorage.removeItem(KEY)
    else sessionStorage.setItem(KEY, key)
  } catch {
    return
  }
}

export function isMarkedFresh(key: string): boolean {
  try {
    return sessionStorage.getItem(KEY) === key
  } catch {
    return false
  }
}
