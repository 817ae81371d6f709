/**
 * The later of two versions of the same thing, with every part that did not change taken from the earlier one.
 *
 * A session that was read anew is new in every part. Shared parts keep two hundred revisions small, and let results that belong to
 * an unchanged strip or box be recognised by identity.
 * @param earlier plain data: objects, lists and values
 * @returns a value deeply equal to `later`; `earlier` itself where nothing changed
 */
export function share<T>(earlier: unknown, later: T): T {
  if (earlier === later || !isPlain(earlier) || !isPlain(later)) return later
  if (Array.isArray(earlier) !== Array.isArray(later)) return later
  const before = earlier as Record<string, unknown>
  const keys = Object.keys(later)
  let same = keys.length === Object.keys(before).length
  const shared = (Array.isArray(later) ? [] : {}) as Record<string, unknown>
  for (const key of keys) {
    const value = share(before[key], (later as Record<string, unknown>)[key])
    shared[key] = value
    if (value !== before[key] || !(key in before)) same = false
  }
  return (same ? earlier : shared) as T
}

const isPlain = (value: unknown): value is object => typeof value === 'object' && value !== null
