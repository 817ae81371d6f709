/** Something wrong with a file: where, what kind, and in words what was found and what to do. */
export interface Fault {
  /** Like `strips[0].stages[2].settings.gain`; empty for the file as a whole. */
  path: string
  code: string
  message: string
}

export type PathPart = string | number

/** A path as it is written in a fault. Keys that are no plain words are quoted. */
export function formatPath(parts: readonly PropertyKey[]): string {
  let text = ''
  for (const part of parts) {
    if (typeof part === 'number') text += `[${part}]`
    else if (/^[A-Za-z_$][\w$]*$/.test(String(part))) text += text ? `.${String(part)}` : String(part)
    else text += `[${JSON.stringify(excerpt(String(part)))}]`
  }
  return text
}

/** Faults of a part of a file, with the path of the part before their own. */
export const faultsUnder = (head: string, faults: readonly Fault[]): Fault[] =>
  faults.map((fault) => ({ ...fault, path: joinPath(head, fault.path) }))

const joinPath = (head: string, path: string): string =>
  path === '' ? head : path.startsWith('[') ? `${head}${path}` : `${head}.${path}`

/** A received value, short enough for a message. */
export function describeReceived(value: unknown): string {
  if (value === undefined) return 'nothing'
  if (typeof value === 'string') return JSON.stringify(excerpt(value))
  if (Array.isArray(value)) return `a list of ${value.length}`
  if (typeof value === 'object' && value !== null) return 'an object'
  if (typeof value === 'number' && !Number.isFinite(value)) return 'a number too large to hold'
  return String(value)
}

const excerpt = (text: string) => (text.length > 40 ? `${text.slice(0, 40)}… (${text.length} characters)` : text)
