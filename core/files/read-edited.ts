import { completeStrip } from '../session/complete'
import type { Session } from '../session/session'
import { MOST_GEAR, MOST_STRIPS, session as schema } from '../session/session'
import { gear } from '../gear'
import { strip } from '../model/strip'
import { consistencyFaults } from './consistency'
import { asRead } from './consistency/parts'
import type { SessionReading } from './read'
import { readSession, sizeFault } from './read'

/**
 * An edited session, read where it differs from the one it came from: what both share was read before, so that a turn of one
 * gain costs no more in a session of 64 strips than in one of five. The same answer as `readSession` gives for its file.
 * @param before as `readSession` gave it
 * @param edited shares with `before` what the edit did not touch
 */
export function readEdited(before: Session, edited: Session): SessionReading {
  if (known.has(edited)) return { ok: true, session: edited }
  const reading = readAnew(before, edited)
  if (reading.ok) known.add(reading.session)
  return reading
}

/** Sessions as they were read: what was read once is not read again. */
const known = new WeakSet<Session>()

function readAnew(before: Session, edited: Session): SessionReading {
  const session = sizeFault(edited) ? null : readParts(before, edited)
  if (session && isConsistent(before, session)) return { ok: true, session: completed(before, session) }
  // Faulty, or nothing that a part by itself can be judged by: the whole says what is wrong, and where.
  return readSession(inFile(edited))
}

/** As it would stand in a file: a key that holds nothing is none. */
const inFile = (part: unknown): unknown => (part === undefined ? undefined : JSON.parse(JSON.stringify(part)))

/** Of a schema: reads a part of a file, or says that it is faulty. */
interface Reader {
  safeParse: (raw: unknown) => { success: boolean; data?: unknown }
}

/** Lists whose entries are read one by one, and how many they may have. */
const LISTS: Partial<Record<string, { of: Reader; least: number; most: number }>> = {
  gear: { of: gear, least: 0, most: MOST_GEAR },
  strips: { of: strip, least: 1, most: MOST_STRIPS },
}

/** Every part that is not the same as before through its schema; `null` where one is faulty. */
function readParts(before: Session, edited: Session): Session | null {
  if (Object.keys(edited).some((key) => !(key in schema.shape))) return null
  const read: Record<string, unknown> = {}
  for (const [key, reader] of Object.entries<Reader>(schema.shape)) {
    const was = before[key as keyof Session]
    const is = edited[key as keyof Session]
    const list = LISTS[key]
    const part = list ? readList(list, was as object[], is) : readPart(reader, was, is)
    if (!part.success) return null
    if (part.data !== undefined) read[key] = part.data
  }
  return read as Session
}

const readPart = (reader: Reader, was: unknown, is: unknown) =>
  is === was ? { success: true, data: is } : reader.safeParse(inFile(is))

function readList({ of, least, most }: NonNullable<(typeof LISTS)[string]>, was: object[], is: unknown) {
  if (is === was) return { success: true, data: is }
  if (!Array.isArray(is) || is.length < least || is.length > most) return { success: false }
  const known = new Set(was)
  const read = is.map((each) => (known.has(each) ? { success: true, data: each } : of.safeParse(inFile(each))))
  return { success: read.every(({ success }) => success), data: read.map(({ data }) => data) }
}

/** Strips are looked at where they or a device of theirs changed; devices where they changed themselves. */
function isConsistent(before: Session, read: Session): boolean {
  const { gear, strips } = unchanged(before, read)
  return (
    consistencyFaults(read, asRead, { gear: (item) => !gear.has(item), strip: (each) => !strips.has(each) }).length ===
    0
  )
}

const completed = (before: Session, read: Session): Session => {
  const { strips } = unchanged(before, read)
  const gear = new Map(read.gear.map((item) => [item.id, item]))
  return { ...read, strips: read.strips.map((each) => (strips.has(each) ? each : completeStrip(each, gear))) }
}

/** The devices that stayed as they were, and the strips that stayed so with every device they name. */
function unchanged(before: Session, read: Session): { gear: Set<unknown>; strips: Set<unknown> } {
  const gear = new Set<unknown>(before.gear)
  const changed = new Set(before.gear.map(({ id }) => id))
  for (const item of read.gear) if (gear.has(item)) changed.delete(item.id)
  const strips = before.strips.filter(
    ({ stages, monitor }) => !stages.some((stage) => changed.has(stage.gear)) && !changed.has(monitor.headphones ?? ''),
  )
  return { gear, strips: new Set<unknown>(strips) }
}
