import type { Fault } from './fault'
import { describeReceived } from './fault'
import type { Gear } from './gear'
import { gear as gearSchema } from './gear'
import type { Log } from './log'
import { log as logSchema } from './log'
import { migrateGear } from './migrate'
import { readSession } from './read'
import { readGear } from './read-gear'
import { readLog } from './read-log'
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
export type BackupReading = { ok: true; backup: Backup } | { ok: false; faults: Fault[] }

/** Sessions and steps that one file may hold: far above any browser's. */
const MOST_SESSIONS = 5000
const MOST_STEPS = 1000
const MOST_DAYS = 40_000

const count = z.number().int().min(0)
const trainer = z.strictObject({
  progress: z
    .array(
      z.strictObject({
        kind: z.string().min(1).max(100).describe('Grade and fault, or the drill.'),
        box: z.number().int().min(0).max(20),
        due: count.describe('Days since 1970.'),
        seen: count,
        good: count,
        last: z.number().describe('Points of the last time.'),
      }),
    )
    .max(MOST_STEPS),
  seconds: z.array(z.strictObject({ day: count, seconds: z.number().min(0).max(86_400) })).max(MOST_DAYS),
})
/** How well each kind of exercise goes, and how long was practised on which day. */
export type BackupTrainer = z.infer<typeof trainer>
const shape = z.strictObject({
  format: z.literal(BACKUP_FORMAT),
  version: z.literal(BACKUP_VERSION),
  on: z.iso.datetime({ offset: true }).describe('When it was made.'),
  sessions: z
    .array(
      z.strictObject({
        name,
        updatedAt: z.number().min(0).describe('Milliseconds since 1970.'),
        cursor: count.describe('Number of the step shown; those above it can be redone.'),
        steps: z
          .array(z.strictObject({ number: count, label: z.string().max(300), session: z.unknown() }))
          .min(1)
          .max(MOST_STEPS),
        log: z.unknown().optional(),
      }),
    )
    .max(MOST_SESSIONS),
  shelf: z.array(z.unknown()).max(MOST_SESSIONS),
  trainer: trainer.optional(),
})

/** The backup file as JSON Schema (draft 2020-12), sessions and gear in full. */
export const backupJsonSchema = () =>
  z.toJSONSchema(
    shape.extend({
      sessions: z.array(
        z.strictObject({
          name,
          updatedAt: z.number(),
          cursor: count,
          steps: z.array(z.strictObject({ number: count, label: z.string(), session: sessionSchema })).min(1),
          log: logSchema.optional(),
        }),
      ),
      shelf: z.array(gearSchema),
    }),
    { io: 'input' },
  )

/** The text of a backup file. */
export const writeBackup = (backup: Backup): string =>
  `${JSON.stringify({ format: BACKUP_FORMAT, version: BACKUP_VERSION, ...backup })}\n`

/** Reads a backup: every session and box in it as if it came from a file of its own. One that is faulty is named, and nothing is taken. */
export function readBackup(text: string): BackupReading {
  let raw: unknown
  try {
    raw = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    const where = error instanceof SyntaxError ? error.message.slice(0, 200) : 'unknown reason'
    return refuse('', 'not-json', `The file is not JSON (${where}). Choose a backup file.`)
  }
  const { format, version } = (typeof raw === 'object' && raw !== null ? raw : {}) as Record<string, unknown>
  if (format !== BACKUP_FORMAT)
    return refuse(
      'format',
      'other-format',
      `This file’s format is ${describeReceived(format)}, not "${BACKUP_FORMAT}". Choose a backup file.`,
    )
  if (version !== BACKUP_VERSION)
    return refuse(
      'version',
      'no-such-version',
      `The version is ${describeReceived(version)}; this program knows ${BACKUP_VERSION}. Nothing was changed.`,
    )
  const parsed = shape.safeParse(raw)
  if (!parsed.success) {
    const faults = parsed.error.issues
      .slice(0, 100)
      .map(({ path, message }) => ({
        path: path
          .map((each, i) => (typeof each === 'number' ? `[${each}]` : `${i > 0 ? '.' : ''}${String(each)}`))
          .join(''),
        code: 'wrong-type',
        message: `${message}. Nothing was changed.`,
      }))
    return { ok: false, faults }
  }
  return contents(parsed.data)
}

function contents({ on, sessions, shelf, trainer: practised }: z.infer<typeof shape>): BackupReading {
  const faults: Fault[] = []
  const read = sessions.map(({ log: given, ...each }, i) => ({
    ...each,
    ...logAt(given, `sessions[${i}]`, faults),
    steps: each.steps.flatMap(({ session, ...step }, k) => {
      const reading = readSession(session)
      if (reading.ok) return [{ ...step, session: reading.session }]
      const at = `sessions[${i}].steps[${k}].session`
      faults.push(...reading.faults.map((fault) => ({ ...fault, path: fault.path ? `${at}.${fault.path}` : at })))
      return []
    }),
  }))
  const gear = shelf.flatMap((item, i) => {
    const reading = readGear(migrateGear(item))
    if (reading.ok) return [reading.gear]
    faults.push(
      ...reading.faults.map((fault) => ({ ...fault, path: `shelf[${i}]${fault.path ? `.${fault.path}` : ''}` })),
    )
    return []
  })
  read.forEach(({ cursor, steps }, i) => {
    if (!steps.some(({ number }) => number === cursor))
      faults.push({
        path: `sessions[${i}].cursor`,
        code: 'no-such-step',
        message: `There is no step ${cursor}. Give the number of one of its steps.`,
      })
  })
  return faults.length > 0
    ? { ok: false, faults: faults.slice(0, 100) }
    : { ok: true, backup: { on, sessions: read, shelf: gear, ...(practised && { trainer: practised }) } }
}

function logAt(given: unknown, at: string, faults: Fault[]): { log?: Log } {
  if (given === undefined) return {}
  const reading = readLog(given)
  if (reading.ok) return { log: reading.log }
  faults.push(...reading.faults.map((fault) => ({ ...fault, path: `${at}.${fault.path}` })))
  return {}
}

const refuse = (path: string, code: string, message: string): BackupReading => ({
  ok: false,
  faults: [{ path, code, message }],
})
