import type { Fault, PathPart } from '../fault'
import { formatPath } from '../fault'

/** Looking into a file that may hold anything. */
export type Path = PathPart[]

export const record = (value: unknown): Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Record<string, unknown>) : {}
export const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : [])
export const fault = (path: Path, code: string, message: string): Fault => ({ path: formatPath(path), code, message })

/** Ids that are used more than once in a list. */
export function duplicates(items: unknown[], path: Path): Fault[] {
  const seen = new Set<unknown>()
  return items.flatMap((item, i) => {
    const id = record(item).id
    if (typeof id !== 'string') return []
    if (!seen.has(id)) {
      seen.add(id)
      return []
    }
    return [fault([...path, i, 'id'], 'duplicate-id', `The id "${id}" is used more than once here. Give each its own.`)]
  })
}
