import type { ParsedElementInfo } from '@streamparser/json'
import { JSONParser, TokenType } from '@streamparser/json'
import type { Backup, BackupSession } from './backup-shape'
import { BACKUP_FORMAT, BACKUP_VERSION, MOST_SESSIONS, headShape, sessionShape } from './backup-shape'
import type { Fault } from './fault'
import { describeReceived, faultsUnder } from './fault'
import type { Gear } from '../gear'
import { migrateGear } from './migrate'
import { readSession } from './read'
import { readGear } from './read-gear'
import { readLog } from './read-log'
import { faultsFrom } from './structure'

export type BackupReading = { ok: true; backup: Backup } | { ok: false; faults: Fault[] }

/** Faults that one answer names. */
const MOST_FAULTS = 100

/** The text of a backup in parts, one session each, so that a large one is never one string. */
export function* backupHead(on: string): Generator<string> {
  yield `{"format":${JSON.stringify(BACKUP_FORMAT)},"version":${BACKUP_VERSION},"on":${JSON.stringify(on)},"sessions":[`
}
export const backupSession = (session: BackupSession, isFirst: boolean): string =>
  `${isFirst ? '' : ','}\n${JSON.stringify(session)}`
export const backupTail = ({ shelf, trainer }: Pick<Backup, 'shelf' | 'trainer'>): string =>
  `],\n"shelf":${JSON.stringify(shelf)}${trainer ? `,\n"trainer":${JSON.stringify(trainer)}` : ''}}\n`

/** The text of a backup file, as one string. */
export const writeBackup = ({ on, sessions, ...rest }: Backup): string =>
  [...backupHead(on), ...sessions.map((each, i) => backupSession(each, i === 0)), backupTail(rest)].join('')

/** Reads a backup: every session and box in it as if it came from a file of its own. One that is faulty is named, and nothing is taken. */
export function readBackup(text: string): BackupReading {
  const reader = new BackupReader()
  reader.push(text)
  return reader.end()
}

/**
 * Reads a backup as its text comes, one session after the other, so that a file larger than a string can be is read too. Nothing of
 * it counts before `end`.
 */
export class BackupReader {
  private readonly faults: Fault[] = []
  private readonly head: Record<string, unknown> = {}
  private readonly sessions: BackupSession[] = []
  private readonly shelf: Gear[] = []
  private readonly counts = { sessions: 0, shelf: 0 }
  private broken: Fault | null = null
  private readonly keys = new RootKeys()
  private readonly parser = new JSONParser({
    paths: [...HEAD_KEYS.map((key) => `$.${key}`), ...LISTS.map((list) => `$.${list}.*`)],
    keepStack: false,
  })

  constructor() {
    this.parser.onToken = ({ token, value }) => this.keys.hear(token, value)
    this.parser.onValue = (info) => this.take(info)
    this.parser.onError = (error) => {
      this.broken ??= notJson(error)
    }
  }

  push(text: string): void {
    if (this.broken || text === '') return
    try {
      this.parser.write(this.isBegun ? text : text.replace(/^\uFEFF/, ''))
      this.isBegun = true
    } catch (error) {
      this.broken ??= notJson(error)
    }
  }
  private isBegun = false

  end(): BackupReading {
    if (!this.broken && !this.parser.isEnded) this.broken = notJson(new Error('it ends too early'))
    const wrong = this.broken ?? this.formatFault()
    if (wrong) return { ok: false, faults: [wrong] }
    const head = headShape.safeParse(this.head)
    if (!head.success) this.faults.push(...faultsFrom(head.error.issues.slice(0, MOST_FAULTS), this.head))
    if (!head.success || this.faults.length > 0) return { ok: false, faults: this.faults.slice(0, MOST_FAULTS) }
    const { on, trainer } = head.data
    return { ok: true, backup: { on, sessions: this.sessions, shelf: this.shelf, ...(trainer && { trainer }) } }
  }

  private take({ value, key, stack }: ParsedElementInfo): void {
    const list = LISTS.find((each) => each === stack[1]?.key)
    if (!list) {
      this.head[String(key)] = value
      return
    }
    const i = this.counts[list]++
    if (i === MOST_SESSIONS) this.faults.push(tooMany(list))
    if (i >= MOST_SESSIONS || this.faults.length >= MOST_FAULTS) return
    if (list === 'sessions') this.takeSession(value, `sessions[${i}]`)
    else this.takeGear(value, `shelf[${i}]`)
  }

  private takeSession(value: unknown, path: string): void {
    const parsed = sessionShape.safeParse(value)
    if (!parsed.success) {
      this.faults.push(...faultsUnder(path, faultsFrom(parsed.error.issues, value)))
      return
    }
    const { log: raw, steps: given, ...rest } = parsed.data
    const faults: Fault[] = []
    const steps = given.flatMap(({ session, ...step }, i) => {
      const reading = readSession(session)
      if (reading.ok) return [{ ...step, session: reading.session }]
      faults.push(...faultsUnder(`steps[${i}].session`, reading.faults))
      return []
    })
    const log = raw === undefined ? null : readLog(raw)
    if (log?.ok === false) faults.push(...log.faults)
    if (!given.some(({ number }) => number === rest.cursor))
      faults.push({
        path: 'cursor',
        code: 'no-such-step',
        message: `There is no step ${rest.cursor}. Give the number of one of its steps.`,
      })
    this.faults.push(...faultsUnder(path, faults))
    if (faults.length === 0) this.sessions.push({ ...rest, steps, ...(log?.ok && { log: log.log }) })
  }

  private takeGear(value: unknown, path: string): void {
    const reading = readGear(migrateGear(value))
    if (reading.ok) this.shelf.push(reading.gear)
    else this.faults.push(...faultsUnder(path, reading.faults))
  }

  private formatFault(): Fault | null {
    const { format, version } = this.head
    if (format !== BACKUP_FORMAT)
      return {
        path: 'format',
        code: 'other-format',
        message: `This file’s format is ${describeReceived(format)}, not "${BACKUP_FORMAT}". Choose a backup file.`,
      }
    if (version !== BACKUP_VERSION)
      return {
        path: 'version',
        code: 'no-such-version',
        message: `The version is ${describeReceived(version)}; this program reads version ${BACKUP_VERSION}. Nothing was changed.`,
      }
    for (const [key, isList] of this.keys.found) {
      if (!isOneOf(HEAD_KEYS, key) && !isOneOf(LISTS, key))
        this.faults.push({
          path: key,
          code: 'unknown-key',
          message: 'This key is not known. Remove it, or check its spelling.',
        })
      else if (isOneOf(LISTS, key) && !isList)
        this.faults.push({ path: key, code: 'wrong-type', message: 'This is no list. Give a list.' })
    }
    for (const path of LISTS)
      if (!this.keys.found.has(path))
        this.faults.push({ path, code: 'missing', message: 'It is missing. Give a list.' })
    return null
  }
}

const HEAD_KEYS = ['format', 'version', 'on', 'trainer'] as const
const LISTS = ['sessions', 'shelf'] as const
const isOneOf = (names: readonly string[], name: string) => names.includes(name)

/** The keys of the outermost object, in their order, and whether each holds a list; the values themselves are not kept. */
class RootKeys {
  readonly found = new Map<string, boolean>()
  private depth = 0
  private text = ''
  private key: string | null = null

  hear(token: TokenType, value: unknown): void {
    if (this.depth === 1 && this.key !== null) {
      this.found.set(this.key, token === TokenType.LEFT_BRACKET)
      this.key = null
    } else if (this.depth === 1 && token === TokenType.COLON) this.key = this.text
    if (token === TokenType.STRING) this.text = String(value)
    else if (token === TokenType.LEFT_BRACE || token === TokenType.LEFT_BRACKET) this.depth++
    else if (token === TokenType.RIGHT_BRACE || token === TokenType.RIGHT_BRACKET) this.depth--
  }
}

const notJson = (error: unknown): Fault => ({
  path: '',
  code: 'not-json',
  message: `The file is not JSON (${error instanceof Error ? error.message.slice(0, 200) : 'unknown reason'}). Choose a backup file.`,
})
const tooMany = (path: string): Fault => ({
  path,
  code: 'too-long',
  message: `A backup has at most ${MOST_SESSIONS} entries here. Split it.`,
})
