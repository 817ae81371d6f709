import { evaluateSession } from '#core/evaluation/evaluate-session'
import { lastMark, logOf } from '#core/log/entries'
import { isBus } from '#core/model'
import { runSheet } from '#core/soundcheck/run-sheet'
import type { RemetraDatabase } from './database'
import { FileLinks } from './file-links'
import { LogRepository } from './log-repository'
import { SecondCopies } from './second-copy'
import { SessionRepository } from './session-repository'

/** What a list of sessions tells of each beside its name. */
export interface SessionAbout {
  /** Names of the channels, and how many busses. */
  strips: string[]
  busses: number
  lastMark: { name: string; at: string } | null
  takes: number
  /** Of the soundcheck. */
  steps: { open: number; all: number }
  hasSecondCopy: boolean
  /** The file on disk that it is kept in. */
  file: string | null
}

/** @returns `null` where the session cannot be read */
export async function sessionAbout(database: RemetraDatabase, key: string): Promise<SessionAbout | null> {
  const logs = new LogRepository(database)
  const opening = await new SessionRepository(database).read(key)
  if (opening.state !== 'open') return null
  const { session } = opening
  const log = logOf(await logs.list(key))
  const mark = lastMark(log)
  const steps = runSheet(session, evaluateSession(session))
  return {
    strips: session.strips.filter((strip) => !isBus(strip)).map(({ name }) => name),
    busses: session.strips.filter(isBus).length,
    lastMark: mark && { name: mark.name, at: mark.at },
    takes: log.takes.filter(({ struck }) => !struck).length,
    steps: { open: steps.filter(({ state }) => state !== 'done').length, all: steps.length },
    hasSecondCopy: (await new SecondCopies(logs).read(key)) !== null,
    file: (await new FileLinks(database).get(key))?.name ?? null,
  }
}
