import type { z } from '../model/z'
import { blockTypes, gearKinds, inputTypes } from '../gear'
import type { Fault, PathPart } from './fault'
import { describeReceived, formatPath } from './fault'
import type { Session } from '../session/session'
import { session } from '../session/session'

/**
 * A session by its structure, or its faults: missing and unknown keys, wrong types, values out of their range.
 * @param enough faults after which the rest of the file is not looked at
 */
export function readStructure(
  raw: unknown,
  enough: number,
): { session: Session; faults: null } | { session: null; faults: Fault[] } {
  // A file that is wrong through and through is told from its beginning: nobody reads ten thousand faults.
  const short = shortened(raw)
  const beginning = short === raw ? [] : (session.safeParse(short).error?.issues ?? [])
  if (beginning.length > enough) return { session: null, faults: faultsFrom(beginning.slice(0, enough + 1), raw) }
  const { data, error } = session.safeParse(raw)
  return data ? { session: data, faults: null } : { session: null, faults: faultsFrom(error?.issues ?? [], raw) }
}

/** What a schema has against a value, in words. */
export const faultsFrom = (issues: readonly z.core.$ZodIssue[], raw: unknown): Fault[] =>
  issues.flatMap((issue) => fromIssue(issue, raw))

/** Entries of every list that the first look takes. */
const FIRST_ENTRIES = 12

/** The value with its lists cut to their first entries; itself where none is longer. Nesting was bounded before. */
function shortened(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value
  if (Array.isArray(value)) {
    const first = value.slice(0, FIRST_ENTRIES).map(shortened)
    return first.length === value.length && first.every((each, i) => each === value[i]) ? value : first
  }
  const short = Object.entries(value).map(([key, each]) => [key, each, shortened(each)] as const)
  return short.every(([, each, cut]) => cut === each)
    ? value
    : Object.fromEntries(short.map(([key, , cut]) => [key, cut]))
}

function fromIssue(issue: z.core.$ZodIssue, raw: unknown): Fault[] {
  if (issue.code === 'unrecognized_keys') {
    return issue.keys
      .slice(0, MOST_KEYS)
      .map((key) => ({
        path: formatPath([...issue.path, key]),
        code: 'unknown-key',
        message: 'This key is not known. Remove it, or check its spelling.',
      }))
  }
  const received = at(raw, issue.path)
  const missing = received === undefined
  return [
    {
      path: formatPath(issue.path),
      code: missing ? 'missing' : (CODES[issue.code] ?? 'invalid'),
      message: missing
        ? `This is missing. Give ${expectation(issue)}.`
        : `Got ${describeReceived(received)}. Give ${expectation(issue)}.`,
    },
  ]
}

/** Unknown keys named for one object; more of them say nothing new. */
const MOST_KEYS = 20

const CODES: Record<string, string> = {
  invalid_type: 'wrong-type',
  too_big: 'too-big',
  too_small: 'too-small',
  invalid_value: 'not-an-option',
  invalid_union: 'not-an-option',
  invalid_format: 'wrong-format',
}

function expectation(issue: z.core.$ZodIssue): string {
  switch (issue.code) {
    case 'invalid_type':
      return TYPES[issue.expected] ?? `a value of type ${issue.expected}`
    case 'too_big':
      return amount(issue.origin, `at most ${issue.maximum}`)
    case 'too_small':
      return amount(issue.origin, `at least ${issue.minimum}`)
    case 'invalid_value':
      return oneOf(issue.values)
    case 'invalid_union':
      return formAt(issue.path)
    case 'invalid_format':
      return issue.format === 'regex'
        ? 'an identifier of 1 to 64 letters, digits, dots, hyphens and underscores, beginning with a letter or digit'
        : issue.format === 'date'
          ? 'a date as YYYY-MM-DD'
          : `text in the form ${issue.format}`
    default:
      return issue.message
  }
}

const oneOf = (values: readonly unknown[]) => `one of ${values.map((value) => JSON.stringify(value)).join(', ')}`

/** What can stand where several forms are allowed. */
function formAt(path: readonly PropertyKey[]): string {
  switch (path.at(-1)) {
    case 'target':
      return 'a convention’s name, { "low": …, "high": …, "reads": "peak" } with levels of −60 to 0 dBFS, or { "risk": … } in percent'
    case 'kind':
      return oneOf(gearKinds)
    case 'type':
      return oneOf(path.includes('blocks') ? blockTypes : [...inputTypes, 'digital'])
    default:
      return 'one of the forms that the session file knows'
  }
}

const TYPES: Record<string, string> = {
  number: 'a number',
  int: 'a whole number',
  string: 'text in quotes',
  boolean: 'true or false',
  object: 'an object',
  array: 'a list',
}

function amount(origin: string, bound: string): string {
  if (origin === 'string') return `text of ${bound} characters`
  if (origin === 'array') return `a list of ${bound} entries`
  return `a number of ${bound}`
}

function at(raw: unknown, path: readonly PropertyKey[]): unknown {
  let value = raw
  for (const part of path as PathPart[]) {
    if (typeof value !== 'object' || value === null || !Object.hasOwn(value, part)) return undefined
    value = (value as Record<PathPart, unknown>)[part]
  }
  return value
}
