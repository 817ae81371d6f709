import { formatPath } from './fault'
import type { Gear } from './gear'

/** One value in which two boxes differ, as text. */
export interface GearDifference {
  path: string
  from: string
  to: string
}

/** Everything in which one box differs from another, but for their ids. */
export function gearDifferences(from: Gear, to: Gear): GearDifference[] {
  const [a, b] = [leaves(from), leaves(to)]
  return [...new Set([...a.keys(), ...b.keys()])].sort().flatMap((path) => {
    const [was, is] = [a.get(path) ?? '–', b.get(path) ?? '–']
    return was === is ? [] : [{ path, from: was, to: is }]
  })
}

const OWN = new Set(['id', 'shelf'])

function leaves(value: unknown, path: PropertyKey[] = [], found = new Map<string, string>()): Map<string, string> {
  if (typeof value === 'object' && value !== null) {
    for (const [key, each] of Object.entries(value)) {
      if (path.length === 0 && OWN.has(key)) continue
      leaves(each, [...path, Array.isArray(value) ? Number(key) : key], found)
    }
  } else if (value !== undefined) {
    found.set(formatPath(path), String(value))
  }
  return found
}
