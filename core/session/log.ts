import { session } from './session'
import { id, shortText } from './text'
import { z } from './z'

/** Marks, takes and strips of a take that a log holds at most. */
export const MOST_MARKS = 200
export const MOST_TAKES = 1000

const moment = z.iso.datetime({ offset: true })

const markParts = {
  id,
  name: z.string().trim().min(1).max(200),
  at: moment,
  by: shortText.optional().describe('Who made it.'),
  firmware: shortText.optional().describe('Of the interface and its driver.'),
  note: z.string().max(2000).optional(),
  struck: z.boolean().optional().describe('Crossed out: kept, but no longer meant.'),
}

/** A named moment: everything as it stood then. */
export const mark = z.strictObject({ ...markParts, session: session.describe('The session as it stood.') })

/** A mark whose session is not read yet. */
export const markEnvelope = z.strictObject({ ...markParts, session: z.unknown() })

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
  struck: z.boolean().optional().describe('Crossed out: kept, but no longer meant.'),
})
export type Take = z.infer<typeof take>

/** The record of a session: what stood where and when, and what was recorded with it. */
export const log = z.strictObject({
  marks: z.array(mark).max(MOST_MARKS).default([]),
  takes: z.array(take).max(MOST_TAKES).default([]),
})
export type Log = z.infer<typeof log>
export type Mark = Log['marks'][number]
