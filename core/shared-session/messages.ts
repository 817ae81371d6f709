import { changes } from '../session/log'
import { z } from '../model/z'
import { live } from './live'
import { MOST_MET, met } from './met'
import { member, presence, roles } from './presence'

/** What members say to each other, sealed. Each message is validated by whoever gets it. */

/** The first byte of what is passed on: which stream it belongs to. */
export const STREAM = { hello: 0, toLeader: 1, toGuest: 2, toAll: 3 } as const

const token = z.string().check(z.regex(/^[0-9a-f]{32}$/))
const count = z.int().check(z.minimum(0))
const label = z.string().check(z.maxLength(300))
const deviceName = z.string().check(z.minLength(1), z.maxLength(60))
const logEntries = z.array(z.unknown()).check(z.maxLength(200_000))

/** The version of these messages: others are refused, with words. */
export const PROTOCOL = 1

/** A guest’s first words: anybody with the key may say them, also again; only the answer to what comes back counts. */
export const hello = z.strictObject({ protocol: z.int(), guest: token })
export type Hello = z.infer<typeof hello>

export const fromGuest = z.discriminatedUnion('type', [
  /** Shows that it could open what the opener sent. */
  z.strictObject({ type: z.literal('ready'), name: deviceName }),
  z.strictObject({
    type: z.literal('propose'),
    id: count,
    /** The revision that the changes are of. */
    base: count,
    label,
    changes,
    /** What met when it was merged after a loss, to be told to the opener too. */
    met: z.array(met).check(z.maxLength(MOST_MET)),
  }),
  /** A drag, as it moves; without changes it is over. */
  z.strictObject({ type: z.literal('preview'), base: count, changes: z.nullable(changes) }),
  z.strictObject({ type: z.literal('log'), id: count, entries: logEntries }),
  z.strictObject({ type: z.literal('at'), at: presence }),
  /** What it was sent does not fit what it has. */
  z.strictObject({ type: z.literal('again') }),
  /** The peaks of the inputs begin anew. */
  z.strictObject({ type: z.literal('passage') }),
])
export type FromGuest = z.infer<typeof fromGuest>

export const fromLeader = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('welcome'),
    protocol: z.int(),
    /** Names of the streams: to all, and from this guest. */
    leader: token,
    stream: token,
    /** The number that the next message to all will have. */
    next: count,
    you: z.int(),
    role: z.enum(roles),
    revision: count,
    session: z.unknown(),
    isAway: z.boolean(),
  }),
  /** The session as it stands, where a guest had lost it. */
  z.strictObject({ type: z.literal('whole'), revision: count, session: z.unknown() }),
  z.strictObject({
    type: z.literal('change'),
    /** The revision that it makes of the one before. */
    revision: count,
    label,
    changes,
    /** Who changed it: the member’s number, 0 for the opener, and which proposal it answers. */
    by: count,
    answers: z.optional(count),
  }),
  z.strictObject({ type: z.literal('answer'), id: count, why: z.nullable(label), met: z.array(met) }),
  z.strictObject({ type: z.literal('preview'), by: count, base: count, changes: z.nullable(changes) }),
  /** Entries that were added, or all of them. */
  z.strictObject({ type: z.literal('log'), entries: logEntries, isWhole: z.boolean() }),
  z.strictObject({ type: z.literal('logged'), id: count, why: z.nullable(label) }),
  z.strictObject({ type: z.literal('role'), role: z.enum(roles) }),
  z.strictObject({ type: z.literal('members'), members: z.array(member).check(z.maxLength(8)) }),
  z.strictObject({ type: z.literal('live'), live }),
  /** The opener has another session open, or this one again. */
  z.strictObject({ type: z.literal('away'), isAway: z.boolean() }),
  /** The opener ended it. */
  z.strictObject({ type: z.literal('ended') }),
])
export type FromLeader = z.infer<typeof fromLeader>
