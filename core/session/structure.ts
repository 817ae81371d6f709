import type { z } from './z'
import type { Fault, PathPart } from './fault'
import { describeReceived, formatPath } from './fault'
import { session } from './session'

/** Faults of the structure: missing and unknown keys, wrong types, values out of their range. */
export function structureFaults(raw: unknown, enough: number): Fault[] {
  // A file that is wrong through and through is told from its beginning: nobody reads ten thousand faults.
  const beginning = issuesOf(shortened(raw))
  const issues = beginning.length > enough ? beginning.slice(0, enough + 1) : issuesOf(raw)
  return faultsFrom(issues, raw)
}

/** What a schema has against a value, in words. */
export const faultsFrom = (issues: readonly z.core.$ZodIssue[], raw: unknown): Fault[] =>
  issues.flatMap((issue) => fromIssue(issue, raw))

const issuesOf = (raw: unknown): readonly z.core.$ZodIssue[] => session.safeParse(raw).error?.issues ?? []

/** Entries of every list that the first look takes. */
const FIRST_ENTRIES = 12

/** The same value with its lists cut to their first entries. Nesting was bounded before. */
function shortened(value: unknown): unknown {
  if (Array.isArray(value)) return value.slice(0, FIRST_ENTRIES).map(shortened)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, shortened(each)]))
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
      return `one of ${issue.values.map((value) => JSON.stringify(value)).join(', ')}`
    case 'invalid_union':
      return issue.path.at(-1) === 'target'
        ? 'a convention’s name, { "low": …, "high": …, "reads": "peak" } with levels of −60 to 0 dBFS, or { "risk": … } in percent'
        : 'one of the kinds that the session file knows'
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
