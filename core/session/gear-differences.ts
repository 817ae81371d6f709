import { formatPath } from './fault'
import type { FieldTable } from './field'
import type { Gear } from './gear'
import { inputSpecs, kinds, latencySpecs, outputSpecs } from './gear'

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
    return was?.text === is?.text ? [] : [{ path, words: inWords(keys), from: was?.text ?? '–', to: is?.text ?? '–' }]
  })
}

type Labels = Readonly<Record<string, string>>
const labelsOf = (...tables: FieldTable[]): Labels =>
  Object.fromEntries(tables.flatMap((fields) => Object.entries(fields).map(([key, { label }]) => [key, label])))
const LABELS = labelsOf(...Object.values(kinds).map((each) => each.allFields), latencySpecs)
const PORT_LABELS = { inputs: labelsOf(inputSpecs), outputs: labelsOf(outputSpecs) }

/** Input 2: EIN, measured value. */
function inWords(path: readonly PropertyKey[]): string {
  const [list, at] = path
  const isPort = list === 'inputs' || list === 'outputs'
  const labels: Labels = isPort ? PORT_LABELS[list] : LABELS
  const known = path.find((key) => String(key) in labels)
  const last = spaced(String(path.filter((key) => typeof key === 'string').at(-1)))
  const label = known === undefined ? last : labels[String(known)]
  const port = isPort ? `${list === 'inputs' ? 'Input' : 'Output'} ${Number(at) + 1}: ` : ''
  return `${port}${label}${path.includes('measured') ? `, measured ${last.toLowerCase()}` : ''}`
}

const spaced = (key: string) => {
  const words = key.replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`)
  return words.charAt(0).toUpperCase() + words.slice(1)
}

const OWN = new Set(['id', 'shelf'])

interface Leaf {
  keys: readonly PropertyKey[]
  text: string
}

function leaves(value: unknown, path: PropertyKey[] = [], found = new Map<string, Leaf>()): Map<string, Leaf> {
  if (typeof value === 'object' && value !== null) {
    for (const [key, each] of Object.entries(value)) {
      if (path.length === 0 && OWN.has(key)) continue
      leaves(each, [...path, Array.isArray(value) ? Number(key) : key], found)
    }
  } else if (value !== undefined) {
    found.set(formatPath(path), { keys: path, text: String(value) })
  }
  return found
}
