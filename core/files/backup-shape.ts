import type { Gear } from '../gear'
import { gear as gearSchema } from '../gear'
import type { Log } from '../session/log'
import { log as logSchema } from '../session/log'
import type { Session } from '../session/session'
import { session as sessionSchema } from '../session/session'
import { name } from '../model/text'
import { described, z } from '../model/z'

export const BACKUP_FORMAT = 'remetra.backup'
export const BACKUP_VERSION = 1

/** Everything that one browser keeps: sessions with their history and log, the gear shelf, and what was practised. */
export interface Backup {
  /** When it was made, ISO 8601. */
  on: string
  sessions: BackupSession[]
  shelf: Gear[]
  trainer?: BackupTrainer | undefined
}
export interface BackupSession {
  name: string
  updatedAt: number
  /** Number of the step shown. */
  cursor: number
  steps: { number: number; label: string; session: Session }[]
  log?: Log
}

/** Sessions and steps that one file may hold: far above any browser's. */
export const MOST_SESSIONS = 5000
const MOST_STEPS = 1000
const MOST_DAYS = 40_000

const count = z.int().check(z.minimum(0))

export const progressShape = z.strictObject({
  kind: described('Grade and fault, or the drill.', z.string().check(z.minLength(1), z.maxLength(100))),
  box: z.int().check(z.minimum(0), z.maximum(20)),
  due: described('Days since 1970.', count),
  seen: count,
  good: count,
  last: described('Points of the last time.', z.number()),
})
export const practiceShape = z.strictObject({ day: count, seconds: z.number().check(z.minimum(0), z.maximum(86_400)) })
export const trainerShape = z.strictObject({
  progress: z.array(progressShape).check(z.maxLength(MOST_STEPS)),
  seconds: z.array(practiceShape).check(z.maxLength(MOST_DAYS)),
})
/** How well each kind of exercise goes, and how long was practised on which day. */
export type BackupTrainer = z.infer<typeof trainerShape>

/** What stands around the sessions and the shelf. */
export const headShape = z.strictObject({
  format: z.literal(BACKUP_FORMAT),
  version: z.literal(BACKUP_VERSION),
  on: described('When it was made.', z.iso.datetime({ offset: true })),
  trainer: z.optional(trainerShape),
})

/** One session of a backup of which neither the steps nor the log have been read yet. */
export const sessionShape = z.strictObject({
  name,
  updatedAt: described('Milliseconds since 1970.', z.number().check(z.minimum(0))),
  cursor: described('Number of the step shown; those above it can be redone.', count),
  steps: z
    .array(z.strictObject({ number: count, label: z.string().check(z.maxLength(300)), session: z.unknown() }))
    .check(z.minLength(1), z.maxLength(MOST_STEPS)),
  log: z.optional(z.unknown()),
})

/** The backup file as JSON Schema (draft 2020-12), sessions and gear in full. */
export const backupJsonSchema = () =>
  z.toJSONSchema(
    z.extend(headShape, {
      sessions: z
        .array(
          z.extend(sessionShape, {
            steps: z
              .array(
                z.strictObject({ number: count, label: z.string().check(z.maxLength(300)), session: sessionSchema }),
              )
              .check(z.minLength(1), z.maxLength(MOST_STEPS)),
            log: z.optional(logSchema),
          }),
        )
        .check(z.maxLength(MOST_SESSIONS)),
      shelf: z.array(gearSchema).check(z.maxLength(MOST_SESSIONS)),
    }),
    { io: 'input' },
  )
