/** Why the browser’s storage did not take something, in words and with what to do. */
export function describeStorageTrouble(error: unknown): string {
  const names = errorNames(error)
  if (names.has('QuotaExceededError')) {
    return 'The browser’s storage is full. Nothing of this session is lost while the tab is open: export it, then delete old sessions or free disk space.'
  }
  if (names.has('VersionError')) {
    return 'Another tab runs an older version. Close it and reload; export this session first.'
  }
  return 'The browser’s storage is blocked or failing, so nothing is kept when this tab closes. Export the session; to keep sessions here, allow this site to store data (a private window may not).'
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
