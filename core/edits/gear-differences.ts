import { formatPath } from '../files/fault'
import type { FieldTable, NumberField } from '../model/field'
import type { Gear } from '../gear'
import { blockFields, inputSpecs, kinds, latencySpecs, outputSpecs } from '../gear'

/** One value in which two boxes differ, as text. */
export interface GearDifference {
  path: string
  /** The path as one says it. */
  words: string
  from: string
  to: string
}

/** Everything in which one box differs from another, but for their ids. */
export function gearDifferences(from: Gear, to: Gear): GearDifference[] {
  const [a, b] = [leaves(from), leaves(to)]
  return [...new Set([...a.keys(), ...b.keys()])].sort().flatMap((path) => {
    const [was, is] = [a.get(path), b.get(path)]
    const keys = was?.keys ?? is?.keys ?? []
    if (was?.text === is?.text) return []
    return [
      {
        path,
        words: inWords(is ? to : from, keys),
        from: was ? withUnit(from, was) : '–',
        to: is ? withUnit(to, is) : '–',
      },
    ]
  })
}

/** The fields that may stand at a box or its ports, and at a processor’s sections. */
const PORT_FIELDS: Record<'inputs' | 'outputs', FieldTable> = { inputs: inputSpecs, outputs: outputSpecs }

/** The field that a value belongs to: of its section, its port, or its own kind of box. */
function fieldAt({ kind }: Gear, path: readonly PropertyKey[]): NumberField | undefined {
  const [list] = path
  const table: FieldTable =
    list === 'blocks'
      ? blockFields
      : list === 'inputs' || list === 'outputs'
        ? PORT_FIELDS[list]
        : { ...latencySpecs, ...kinds[kind].allFields }
  const key = path.find((part) => typeof part === 'string' && part in table)
  return key === undefined ? undefined : table[key as string]
}

/** Input 2: EIN, measured value. */
function inWords(gear: Gear, path: readonly PropertyKey[]): string {
  const [list, at] = path
  const last = spaced(String(path.filter((key) => typeof key === 'string').at(-1)))
  const label = fieldAt(gear, path)?.label ?? last
  const place =
    list === 'inputs' || list === 'outputs'
      ? `${list === 'inputs' ? 'Input' : 'Output'} ${Number(at) + 1}: `
      : list === 'blocks'
        ? `Section ${Number(at) + 1}: `
        : ''
  return `${place}${label}${path.includes('measured') ? `, measured ${last.toLowerCase()}` : ''}`
}

/** A value with its unit: 4 : 1, −6 dB. */
function withUnit(gear: Gear, { keys, text, isNumber }: Leaf): string {
  const unit = isNumber && keys.at(-1) !== 'spread' ? fieldAt(gear, keys)?.unit : undefined
  return unit === undefined || unit === 'times' ? text : `${text.replace(/^-/, '−')} ${unit}`
}

const spaced = (key: string) => {
  const words = key.replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`)
  return words.charAt(0).toUpperCase() + words.slice(1)
}

const OWN = new Set(['id', 'shelf'])

interface Leaf {
  keys: readonly PropertyKey[]
  text: string
  isNumber: boolean
}

function leaves(value: unknown, path: PropertyKey[] = [], found = new Map<string, Leaf>()): Map<string, Leaf> {
  if (typeof value === 'object' && value !== null) {
    for (const [key, each] of Object.entries(value)) {
      if (path.length === 0 && OWN.has(key)) continue
      leaves(each, [...path, Array.isArray(value) ? Number(key) : key], found)
    }
  } else if (value !== undefined) {
    found.set(formatPath(path), { keys: path, text: String(value), isNumber: typeof value === 'number' })
  }
  return found
}
