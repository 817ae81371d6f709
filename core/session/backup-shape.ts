import type { Gear } from './gear'
import { gear as gearSchema } from './gear'
import type { Log } from './log'
import { log as logSchema } from './log'
import type { Session } from './session'
import { session as sessionSchema } from './session'
import { name } from './text'
import { z } from './z'

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

const count = z.number().int().min(0)

export const progressShape = z.strictObject({
  kind: z.string().min(1).max(100).describe('Grade and fault, or the drill.'),
  box: z.number().int().min(0).max(20),
  due: count.describe('Days since 1970.'),
  seen: count,
  good: count,
  last: z.number().describe('Points of the last time.'),
})
export const practiceShape = z.strictObject({ day: count, seconds: z.number().min(0).max(86_400) })
export const trainerShape = z.strictObject({
  progress: z.array(progressShape).max(MOST_STEPS),
  seconds: z.array(practiceShape).max(MOST_DAYS),
})
/** How well each kind of exercise goes, and how long was practised on which day. */
export type BackupTrainer = z.infer<typeof trainerShape>

/** What stands around the sessions and the shelf. */
export const headShape = z.strictObject({
  format: z.literal(BACKUP_FORMAT),
  version: z.literal(BACKUP_VERSION),
  on: z.iso.datetime({ offset: true }).describe('When it was made.'),
  trainer: trainerShape.optional(),
})

/** One session of a backup of which neither the steps nor the log have been read yet. */
export const sessionShape = z.strictObject({
  name,
  updatedAt: z.number().min(0).describe('Milliseconds since 1970.'),
  cursor: count.describe('Number of the step shown; those above it can be redone.'),
  steps: z
    .array(z.strictObject({ number: count, label: z.string().max(300), session: z.unknown() }))
    .min(1)
    .max(MOST_STEPS),
  log: z.unknown().optional(),
})

/** The backup file as JSON Schema (draft 2020-12), sessions and gear in full. */
export const backupJsonSchema = () =>
  z.toJSONSchema(
    headShape.extend({
      sessions: z
        .array(
          sessionShape.extend({
            steps: z
              .array(z.strictObject({ number: count, label: z.string().max(300), session: sessionSchema }))
              .min(1)
              .max(MOST_STEPS),
            log: logSchema.optional(),
          }),
        )
        .max(MOST_SESSIONS),
      shelf: z.array(gearSchema).max(MOST_SESSIONS),
    }),
    { io: 'input' },
  )
