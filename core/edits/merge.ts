import equal from 'fast-deep-equal'

export type Merge<T> = { ok: true; merged: T } | { ok: false; path: string }

/** Whose value stands where both changed the same thing, each in its own way. */
export type Prefer = 'mine' | 'theirs'

/** A merge that always comes to something, and the places that both changed: `strips.cello.stages.desk.settings.gain`. */
export interface MergedAll<T> {
  merged: T
  met: string[]
}

/**
 * Two changes of the same thing, made apart: what only one of them changed is taken, whichever it was.
 * @returns the path of the first place that both changed, each in its own way, where there is one
 */
export function merge<T>(base: T, mine: T, theirs: T): Merge<T> {
  const { merged, met } = mergeAll(base, mine, theirs)
  const [path] = met
  return path === undefined ? { ok: true, merged } : { ok: false, path }
}

/**
 * The same, with every place that both changed decided for one of them. Lists whose entries have names of their own (an id, a step, a
 * bus they go to) are merged entry by entry; others entry by entry while all have one length, and otherwise as one value.
 */
export function mergeAll<T>(base: T, mine: T, theirs: T, prefer: Prefer = 'theirs'): MergedAll<T> {
  const met: string[] = []
  const merged = mergeValue(base, mine, theirs, '', { prefer, met })
  return { merged: merged as T, met }
}

interface Deciding {
  prefer: Prefer
  met: string[]
}
type Entries = Record<string, unknown>

function mergeValue(base: unknown, mine: unknown, theirs: unknown, path: string, by: Deciding): unknown {
  if (equal(mine, theirs) || equal(mine, base)) return theirs
  if (equal(theirs, base)) return mine
  const lists = [base ?? [], mine, theirs]
  const key = lists.every(Array.isArray) ? keyOf(lists as unknown[][]) : null
  if (key) return mergeKeyed(key, lists as Entries[][], path, by)
  if (!mergeable(base, mine, theirs)) return decided(mine, theirs, path, by)
  return mergeEntries((base ?? {}) as Entries, mine as Entries, theirs as Entries, path, by)
}

function decided(mine: unknown, theirs: unknown, path: string, { prefer, met }: Deciding): unknown {
  met.push(path)
  return prefer === 'mine' ? mine : theirs
}

const below = (path: string, key: string) => (path ? `${path}.${key}` : key)

function mergeEntries(base: Entries, mine: Entries, theirs: Entries, path: string, by: Deciding): unknown {
  const merged = (Array.isArray(mine) ? [] : {}) as Entries
  for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const part = mergeValue(base[key], mine[key], theirs[key], below(path, key), by)
    if (part !== undefined) merged[key] = part
  }
  return merged
}

function mergeable(base: unknown, mine: unknown, theirs: unknown): boolean {
  // What was nothing before was begun by both.
  const values = base === undefined ? [mine, theirs] : [base, mine, theirs]
  if (values.some((each) => typeof each !== 'object' || each === null)) return false
  const lists = values.filter(Array.isArray)
  return (
    lists.length === 0 ||
    (base !== undefined && lists.length === values.length && lists.every((each) => each.length === lists[0]?.length))
  )
}

/** By what the entries of lists are known. */
const KEYS = ['id', 'step', 'to']

const keyOf = (lists: readonly unknown[][]): string | null =>
  lists.some(({ length }) => length > 0)
    ? (KEYS.find((key) => lists.every((list) => isKeyed(list, key))) ?? null)
    : null

const isKeyed = (list: readonly unknown[], key: string): boolean =>
  list.every((each) => typeof (each as Entries | null)?.[key] === 'string') &&
  new Set(list.map((each) => (each as Entries)[key])).size === list.length

function mergeKeyed(key: string, lists: readonly Entries[][], path: string, by: Deciding): Entries[] {
  const [base, mine, theirs] = lists.map((list) => new Map(list.map((each) => [each[key] as string, each]))) as [
    Map<string, Entries>,
    Map<string, Entries>,
    Map<string, Entries>,
  ]
  const entries = new Map<string, unknown>()
  for (const name of new Set([...theirs.keys(), ...mine.keys()]))
    entries.set(name, mergeValue(base.get(name), mine.get(name), theirs.get(name), below(path, name), by))
  return mergedOrder(names(base), names(mine), names(theirs), path, by)
    .map((name) => entries.get(name) as Entries | undefined)
    .filter((entry) => entry !== undefined)
}

const names = (list: ReadonlyMap<string, unknown>) => [...list.keys()]

/** The order of one of them, with what only the other has put behind what it stands behind there. */
function mergedOrder(base: string[], mine: string[], theirs: string[], path: string, by: Deciding): string[] {
  const moved = [mine, theirs].map((list) => !equal(base.filter(isIn(list)), list.filter(isIn(base))))
  const bothMoved = moved[0] && moved[1] && !equal(mine.filter(isIn(theirs)), theirs.filter(isIn(mine)))
  const isMine = bothMoved ? decided(true, false, below(path, 'order'), by) : moved[0] && !moved[1]
  const [leading, other] = isMine ? [mine, theirs] : [theirs, mine]
  const order = [...leading]
  other.forEach((name, i) => {
    if (!order.includes(name)) order.splice(order.indexOf(other[i - 1] ?? '') + 1, 0, name)
  })
  return order
}
const isIn = (list: readonly string[]) => (name: string) => list.includes(name)
