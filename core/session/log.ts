import { session } from './session'
import { id, shortText } from '../model/text'
import { described, z } from '../model/z'

/** Marks and takes that can be added to one log. A file may hold more: the logs of several computers, merged. */
export const MOST_MARKS = 2000
export const MOST_TAKES = 10_000

/** Newest version of a log that this program reads. Version 2 keeps a mark's session as changes against an earlier mark's. */
export const LOG_VERSION = 2

/** Entries of one kind that a file may hold: the bound of an addition, ten times over. */
const MOST_READ = 10

const moment = z.iso.datetime({ offset: true })

const headParts = {
  id,
  name: z.string().check(z.trim(), z.minLength(1), z.maxLength(200)),
  at: moment,
  by: described('Who made it.', z.optional(shortText)),
  firmware: described('Of the interface and its driver.', z.optional(shortText)),
  note: z.optional(z.string().check(z.maxLength(2000))),
  struck: described('Deleted: kept in the file, left out of lists.', z.optional(z.boolean())),
}

/** What a list shows of a mark. */
export const markHead = z.strictObject(headParts)
export type MarkHead = z.infer<typeof markHead>

/** One operation of a JSON Patch (RFC 6902); of its operations a log uses these three. */
const change = z.discriminatedUnion('op', [
  z.strictObject({ op: z.literal('add'), path: z.string().check(z.maxLength(1000)), value: z.unknown() }),
  z.strictObject({ op: z.literal('replace'), path: z.string().check(z.maxLength(1000)), value: z.unknown() }),
  z.strictObject({ op: z.literal('remove'), path: z.string().check(z.maxLength(1000)) }),
])
/** What differs between two sessions, as a JSON Patch (RFC 6902). */
export const changes = z.array(change).check(z.maxLength(100_000))

/** A mark with everything as it stood then. */
const wholeMark = z.strictObject({ ...headParts, session: described('The session as it stood.', session) })
/** A mark kept as what differs from an earlier one. */
const changedMark = z.strictObject({
  ...headParts,
  from: described('An earlier mark of this log that holds its session whole.', id),
  changes: described('JSON Patch (RFC 6902) from that session to this one.', changes),
})

/** A mark of which neither the session nor the changes have been read yet. */
export const markEnvelope = z.strictObject({
  ...headParts,
  session: z.optional(z.unknown()),
  from: z.optional(id),
  changes: z.optional(changes),
})

export type Mark = z.infer<typeof wholeMark>
/** A mark as it is stored: whole, or as changes where that is smaller. */
export type StoredMark = Mark | z.infer<typeof changedMark>
export type SessionChanges = z.infer<typeof changes>

export const verdicts = ['keep', 'maybe', 'no'] as const

/** One take of some strips. */
export const take = z.strictObject({
  id,
  number: z.int().check(z.minimum(1), z.maximum(100_000)),
  name: z._default(z.string().check(z.maxLength(200)), ''),
  strips: z._default(z.array(id).check(z.maxLength(200)), []),
  at: described('When it began.', moment),
  seconds: z.optional(z.number().check(z.minimum(0), z.maximum(1_000_000))),
  verdict: z.optional(z.enum(verdicts)),
  note: z.optional(z.string().check(z.maxLength(2000))),
  peak: described('Highest sample, dBFS.', z.optional(z.number().check(z.minimum(-400), z.maximum(40)))),
  clippedRuns: z.optional(z.int().check(z.minimum(0))),
  mark: described('The mark with whose settings it was made.', z.optional(id)),
  struck: described('Deleted: kept in the file, left out of lists.', z.optional(z.boolean())),
})
export type Take = z.infer<typeof take>

const version = described(
  '2 where a mark is kept as changes.',
  z.optional(z.int().check(z.minimum(1), z.maximum(LOG_VERSION))),
)
const takes = z._default(z.array(take).check(z.maxLength(MOST_READ * MOST_TAKES)), [])

/** The record of a session: what stood where and when, and what was recorded with it. */
export const log = z.strictObject({
  version,
  marks: z._default(z.array(z.union([wholeMark, changedMark])).check(z.maxLength(MOST_READ * MOST_MARKS)), []),
  takes,
})
export interface Log {
  marks: StoredMark[]
  takes: Take[]
}

/** A log of which the marks' sessions have not been read yet. */
export const logEnvelope = z.strictObject({
  version,
  marks: z._default(z.array(markEnvelope).check(z.maxLength(MOST_READ * MOST_MARKS)), []),
  takes,
})
