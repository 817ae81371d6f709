import { completeStrip } from '../session/complete'
import { consistencyFaults } from './consistency'
import { asRead, eachByItself } from './consistency/parts'
import type { Fault } from './fault'
import { describeReceived } from './fault'
import type { Session } from '../session/session'
import { SESSION_FORMAT, SESSION_VERSION } from '../session/session'
import { migrate } from './migrate'
import { readStructure } from './structure'

export type SessionReading = { ok: true; session: Session } | { ok: false; faults: Fault[] }

/** Largest file that is read, in characters: a log of 2,000 marks that have nothing in common, twice over. */
export const MOST_CHARACTERS = 256 * 1024 * 1024

/** Faults that one answer names; beyond them only their number is told. */
const MOST_FAULTS = 100

/** Reads a session from the text of a file. Never throws: what is wrong comes back as a list of faults. */
export function readSessionText(text: string): SessionReading {
  const parsed = parseSessionText(text)
  return parsed.ok ? readSession(parsed.raw) : parsed
}

/** The JSON of a file’s text, or why it is none. */
export function parseSessionText(
  text: string,
  wanted = 'session file',
): { ok: true; raw: unknown } | { ok: false; faults: Fault[] } {
  if (text.length > MOST_CHARACTERS) {
    return refuse({
      path: '',
      code: 'too-big',
      message: `The file has ${text.length} characters; a session has at most ${MOST_CHARACTERS}. This is hardly a session file: choose another.`,
    })
  }
  try {
    // A byte order mark is what some editors put before the text; JSON does not know it.
    return { ok: true, raw: JSON.parse(text.replace(/^\uFEFF/, '')) }
  } catch (error) {
    const where = error instanceof SyntaxError ? error.message.slice(0, 200) : 'unknown reason'
    return refuse({
      path: '',
      code: 'not-json',
      message: `The file is not JSON (${where}). Choose a ${wanted}, or correct the text at that place.`,
    })
  }
}

/**
 * Reads a session from parsed JSON, completes it with its defaults, and names all faults at once. The log that a file may carry
 * besides is left aside: `session-file.ts` reads both.
 */
export function readSession(file: unknown): SessionReading {
  const foreign = formatFault(file)
  if (foreign) return refuse(foreign)
  const { log: _log, ...given } = file as Record<string, unknown>
  const tooBig = sizeFault(given)
  if (tooBig) return refuse(tooBig)
  const raw = migrate(given)
  const { session, faults } = readStructure(raw, MOST_FAULTS)
  if (!session) {
    const more = faults.length > MOST_FAULTS ? [] : consistencyFaults(raw, eachByItself)
    return { ok: false, faults: cap(distinct([...faults, ...more])) }
  }
  const inconsistent = consistencyFaults(session, asRead)
  if (inconsistent.length > 0) return { ok: false, faults: cap(distinct(inconsistent)) }
  const gear = new Map(session.gear.map((item) => [item.id, item]))
  return { ok: true, session: { ...session, strips: session.strips.map((strip) => completeStrip(strip, gear)) } }
}

const refuse = (fault: Fault): Extract<SessionReading, { ok: false }> => ({ ok: false, faults: [fault] })

/** Another format or a newer version: nothing else in the file can be judged. */
function formatFault(raw: unknown): Fault | null {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    return {
      path: '',
      code: 'other-format',
      message: `A session file holds one object; this one holds ${describeReceived(raw)}. Choose a session file.`,
    }
  }
  const { format, version } = raw as Record<string, unknown>
  if (format !== SESSION_FORMAT) {
    return {
      path: 'format',
      code: 'other-format',
      message: `This file’s format is ${describeReceived(format)}, not "${SESSION_FORMAT}". Choose a session file.`,
    }
  }
  if (version === 1 || version === 2 || version === SESSION_VERSION) return null
  return typeof version === 'number' && Number.isInteger(version) && version > SESSION_VERSION
    ? {
        path: 'version',
        code: 'newer-version',
        message: `The file has version ${version}; this program knows versions up to ${SESSION_VERSION}. Open it with a newer Remetra. Nothing was changed.`,
      }
    : {
        path: 'version',
        code: 'no-such-version',
        message: `The version is ${describeReceived(version)}. Give ${SESSION_VERSION}.`,
      }
}

/** Longest list that any place of the format allows, and the deepest nesting it can have, with room to spare. */
const LONGEST_LIST = 1000
const DEEPEST = 24

/** Values in the largest file worth reading one by one, several times the largest session that a person makes. */
const MOST_VALUES = 50_000

/** Lists or nesting far beyond the format are refused before they are looked at one by one. */
export function sizeFault(raw: unknown): Fault | null {
  const open: { value: unknown; depth: number }[] = [{ value: raw, depth: 0 }]
  let values = 0
  for (let next = open.pop(); next; next = open.pop()) {
    if (typeof next.value !== 'object' || next.value === null) continue
    const children = Object.values(next.value)
    values += children.length
    if (children.length > LONGEST_LIST) {
      return {
        path: '',
        code: 'too-big',
        message: `A list or object with ${children.length} entries; no place of a session has more than ${LONGEST_LIST}. Shorten it.`,
      }
    }
    if (values > MOST_VALUES) {
      return {
        path: '',
        code: 'too-big',
        message: `The file holds more than ${MOST_VALUES} values, far more than a session. Split it.`,
      }
    }
    if (next.depth > DEEPEST) {
      return {
        path: '',
        code: 'too-deep',
        message: `Lists or objects nested deeper than ${DEEPEST}; a session has no such place. Flatten it.`,
      }
    }
    for (const child of children) open.push({ value: child, depth: next.depth + 1 })
  }
  return null
}

/** One fault for a place and a kind: both checks can find the same missing value. */
function distinct(faults: Fault[]): Fault[] {
  const seen = new Set<string>()
  return faults.filter(({ path, code }) => {
    const key = `${path} ${code}`
    return !seen.has(key) && seen.add(key)
  })
}

function cap(faults: Fault[]): Fault[] {
  if (faults.length <= MOST_FAULTS) return faults
  return [
    ...faults.slice(0, MOST_FAULTS),
    { path: '', code: 'more', message: 'There are more faults. Correct these first.' },
  ]
}
