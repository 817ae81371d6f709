/** Why the browser’s storage did not take or give something, in words and with what to do. */
export function describeStorageTrouble(error: unknown): string {
  const names = errorNames(error)
  if (names.has('NewerDatabaseError')) {
    return 'A newer version of Remetra keeps data in this browser. This older version neither reads nor changes it. Reload the page to get the newer version, or export everything as it is from the list of sessions.'
  }
  if (names.has('WorkerStoppedError')) {
    return 'The part of the program that reads and writes files could not be loaded, or stopped. Nothing was changed. Reload the page and try again.'
  }
  if (names.has('NewerDataError')) {
    return 'A newer version of Remetra changed this. Nothing was overwritten. Reload the page to use the newer version.'
  }
  if (names.has('QuotaExceededError')) {
    return 'The browser’s storage is full. Nothing of this session is lost while the tab is open. Export it, then delete old sessions permanently or free disk space. Then try again.'
  }
  if (names.has('VersionError')) {
    return 'Another tab runs another version of Remetra. Export this session, close the other tabs, and reload.'
  }
  // With another error inside, the database could not be opened in the first place.
  if (names.has('DatabaseClosedError') && names.size === 1) {
    return 'The browser’s storage for this site was cleared or closed while this tab was open. What you see is on this screen only: export it, then reload the page.'
  }
  return 'The browser’s storage is blocked or failing, so nothing is kept when this tab closes. Export the session; to keep sessions here, allow this site to store data (a private window may not).'
}

/** An error as it crosses a thread, which keeps its name alone: the one that matters is the innermost. */
export function asNamed(error: unknown): Error {
  const named = new Error(describeStorageTrouble(error))
  named.name = [...errorNames(error)].at(-1) ?? named.name
  return named
}

/** Dexie wraps the browser’s errors: the cause carries the name that matters. */
function errorNames(error: unknown): Set<string> {
  const names = new Set<string>()
  for (let each = error; typeof each === 'object' && each !== null; each = (each as { inner?: unknown }).inner) {
    if ('name' in each) names.add(String(each.name))
    if (names.size > 8) break
  }
  return names
}
