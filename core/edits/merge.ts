import equal from 'fast-deep-equal'

export type Merge<T> = { ok: true; merged: T } | { ok: false; path: string }

/**
 * Two changes of the same thing, made apart: what only one of them changed is taken, whichever it was.
 * Lists are merged entry by entry while both kept their length; otherwise a list is one value.
 * @returns the path of the first place that both changed, each in its own way, where there is one
 */
export function merge<T>(base: T, mine: T, theirs: T, path = ''): Merge<T> {
  if (equal(mine, theirs) || equal(mine, base)) return { ok: true, merged: theirs }
  if (equal(theirs, base)) return { ok: true, merged: mine }
  if (!mergeable(base, mine, theirs)) return { ok: false, path }
  const [from, one, other] = [base, mine, theirs] as Record<string, unknown>[] as [Entries, Entries, Entries]
  const merged = (Array.isArray(mine) ? [] : {}) as Entries
  for (const key of new Set([...Object.keys(other), ...Object.keys(one)])) {
    const part = merge(from[key], one[key], other[key], path ? `${path}.${key}` : key)
    if (!part.ok) return part
    if (part.merged !== undefined) merged[key] = part.merged
  }
  return { ok: true, merged: merged as T }
}

type Entries = Record<string, unknown>

function mergeable(...values: unknown[]): boolean {
  if (values.some((each) => typeof each !== 'object' || each === null)) return false
  const lists = values.filter(Array.isArray)
  return (
    lists.length === 0 || (lists.length === values.length && lists.every((each) => each.length === lists[0]?.length))
  )
}
