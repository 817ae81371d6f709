import type { FieldTable, Tolerant } from '../model'
import { inputSpread, moved } from '../model'

/** A figure that follows from some of a thing’s specifications, and how it is made from them. */
type Figure<T> = (owner: T) => number | null | undefined

/**
 * The standard uncertainty of a figure from those of the specifications that it follows from: central differences, as everywhere.
 * @param replace the thing with one specification in force replaced
 */
export function figureSpread<T>(
  owner: T,
  figure: Figure<T>,
  specs: Readonly<Record<string, number | undefined>>,
  of: Tolerant,
  table: FieldTable,
  replace: (owner: T, spec: string, value: number) => T,
): number {
  let variance = 0
  for (const [spec, field] of Object.entries(table)) {
    const value = specs[spec]
    const doubt = value === undefined ? null : inputSpread(of, spec, field)
    if (value === undefined || !doubt || doubt.u === 0) continue
    const [up, down] = [1, -1].map((z) => figure(replace(owner, spec, moved(value, doubt, z))))
    if (up != null && down != null) variance += ((up - down) / 2) ** 2
  }
  return Math.sqrt(variance)
}
