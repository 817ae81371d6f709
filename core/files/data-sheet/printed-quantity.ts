import { parseQuantity } from '../../units'

/** A printed figure in a unit; the many ways to write the same one are made one. */
export function printedQuantity(text: string, unit: string): number | 'ambiguous' | null {
  const written = text
    .replace(/db[- ]?\(?a\)?$/, 'dba')
    .replace(/db ?spl ?\(?a?\)?$/, 'dbspl')
    .replace(/(db[uv]) ?\(a\)$/, '$1')
    .replace(/dbfs ?\/ ?pa/, 'dbfs')
    .replace(/db.*1 ?v ?\/ ?pa.*/, 'dbv/pa')
    .replace(/v(?:rms|eff)$/, 'v')
    .replace(/meg ?(?=ω|ohm)/, 'm')
  return parseQuantity(written, unit)
}
