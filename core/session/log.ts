import { session } from './session'
import { id, shortText } from './text'
import { z } from './z'

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
  name: z.string().trim().min(1).max(200),
  at: moment,
  by: shortText.optional().describe('Who made it.'),
  firmware: shortText.optional().describe('Of the interface and its driver.'),
  note: z.string().max(2000).optional(),
  struck: z.boolean().optional().describe('Deleted: kept in the file, left out of lists.'),
}

/** What a list shows of a mark. */
export const markHead = z.strictObject(headParts)
export type MarkHead = z.infer<typeof markHead>

/** One operation of a JSON Patch (RFC 6902); of its operations a log uses these three. */
const change = z.discriminatedUnion('op', [
  z.strictObject({ op: z.literal('add'), path: z.string().max(1000), value: z.unknown() }),
  z.strictObject({ op: z.literal('replace'), path: z.string().max(1000), value: z.unknown() }),
  z.strictObject({ op: z.literal('remove'), path: z.string().max(1000) }),
])
const changes = z.array(change).max(100_000)

/** A mark with everything as it stood then. */
const wholeMark = z.strictObject({ ...headParts, session: session.describe('The session as it stood.') })
/** A mark kept as what differs from an earlier one. */
const changedMark = z.strictObject({
  ...headParts,
  from: id.describe('An earlier mark of this log that holds its session whole.'),
  changes: changes.describe('JSON Patch (RFC 6902) from that session to this one.'),
})

/** A mark of which neither the session nor the changes have been read yet. */
export const markEnvelope = z.strictObject({
  ...headParts,
  session: z.unknown().optional(),
  from: id.optional(),
  changes: changes.optional(),
})

export type Mark = z.infer<typeof wholeMark>
/** A mark as it is stored: whole, or as changes where that is smaller. */
export type StoredMark = Mark | z.infer<typeof changedMark>
export type SessionChanges = z.infer<typeof changes>

export const verdicts = ['keep', 'maybe', 'no'] as const

/** One take of some strips. */
export const take = z.strictObject({
  id,
  number: z.number().int().min(1).max(100_000),
  name: z.string().max(200).default(''),
  strips: z.array(id).max(200).default([]),
  at: moment.describe('When it began.'),
  seconds: z.number().min(0).max(1_000_000).optional(),
  verdict: z.enum(verdicts).optional(),
  note: z.string().max(2000).optional(),
  peak: z.number().min(-400).max(40).optional().describe('Highest sample, dBFS.'),
  clippedRuns: z.number().int().min(0).optional(),
  mark: id.optional().describe('The mark with whose settings it was made.'),
  struck: z.boolean().optional().describe('Deleted: kept in the file, left out of lists.'),
})
export type Take = z.infer<typeof take>

const version = z.number().int().min(1).max(LOG_VERSION).optional().describe('2 where a mark is kept as changes.')
const takes = z
  .array(take)
  .max(MOST_READ * MOST_TAKES)
  .default([])

/** The record of a session: what stood where and when, and what was recorded with it. */
export const log = z.strictObject({
  version,
  marks: z
    .array(z.union([wholeMark, changedMark]))
    .max(MOST_READ * MOST_MARKS)
    .default([]),
  takes,
})
export interface Log {
  marks: StoredMark[]
  takes: Take[]
}

/** A log of which the marks' sessions have not been read yet. */
export const logEnvelope = z.strictObject({
  version,
  marks: z
    .array(markEnvelope)
    .max(MOST_READ * MOST_MARKS)
    .default([]),
  takes,
})
