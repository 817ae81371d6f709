import equal from 'fast-deep-equal'
import { BackupReader, backupHead, backupSession, backupTail } from '#core/files/backup'
import type { BackupSession, Fault } from '#core/files'
import type { Aside } from './aside'
import type { RemetraDatabase } from './database'
import { LogRepository } from './log-repository'
import { newKey } from './new-key'
import { SessionRepository } from './session-repository'
import { ShelfRepository } from './shelf-repository'
import { TrainerRepository } from './trainer-repository'

export interface SavedBackup {
  file: Blob
  sessions: number
  items: number
  hasPractice: boolean
  /** What is not in the file: it cannot be read, or a newer version wrote it. */
  left: { name: string; why: Aside['why'] }[]
}

/**
 * Everything that can be read, as the parts of one file; what cannot is named.
 * @param only these sessions, without the shelf and the trainer’s progress
 */
export async function saveBackup(
  database: RemetraDatabase,
  on: string,
  only?: readonly string[],
): Promise<SavedBackup> {
  const sessions = new SessionRepository(database)
  const parts: BlobPart[] = [...backupHead(on)]
  const left: Aside[] = []
  let count = 0
  for (const key of only ?? (await sessions.keys())) {
    const found = await sessions.whole(key)
    left.push(...found.aside)
    // As a blob each, so that they need not be in memory together.
    if (found.session) parts.push(new Blob([backupSession(found.session, count++ === 0)]))
  }
  if (only) {
    parts.push(backupTail({ shelf: [], trainer: undefined }))
    return savedBackup(parts, count, 0, false, left)
  }
  const shelf = await new ShelfRepository(database).list()
  const { progress, seconds, aside } = await new TrainerRepository(database).read()
  left.push(...shelf.aside, ...aside)
  const items = shelf.rows.filter(({ deletedAt }) => deletedAt === 0).map(({ item }) => item)
  const hasPractice = progress.length > 0
  parts.push(backupTail({ shelf: items, trainer: hasPractice ? { progress, seconds } : undefined }))
  return savedBackup(parts, count, items.length, hasPractice, left)
}

const savedBackup = (
  parts: BlobPart[],
  sessions: number,
  items: number,
  hasPractice: boolean,
  left: readonly Aside[],
): SavedBackup => ({
  file: new Blob(parts, { type: 'application/json' }),
  sessions,
  items,
  hasPractice,
  left: left.map(({ name, why }) => ({ name, why })),
})

export type RestoredBackup =
  { ok: true; added: number; same: number; logged: number; items: number } | { ok: false; faults: Fault[] }

/** Puts what a backup has beside what is there. A session that is there in the same state is not added again; every one keeps its name. */
export async function restoreBackup(database: RemetraDatabase, file: Blob): Promise<RestoredBackup> {
  const reader = new BackupReader()
  const decoder = new TextDecoder()
  for (let at = 0; at < file.size; at += PIECE)
    reader.push(decoder.decode(await file.slice(at, at + PIECE).arrayBuffer(), { stream: true }))
  reader.push(decoder.decode())
  const reading = reader.end()
  if (!reading.ok) return reading
  const { sessions, shelf, trainer } = reading.backup
  const { added, logged } = await addSessions(database, sessions)
  if (trainer) await new TrainerRepository(database).addBack(trainer)
  const repository = new ShelfRepository(database)
  const there = new Map((await repository.list()).rows.map(({ item }) => [item.id, item]))
  const items = await repository.add(shelf.filter((item) => !equal(there.get(item.id), item)))
  return { ok: true, added, same: sessions.length - added, logged, items: items.length }
}

/** Bytes of a file that are read at once. */
const PIECE = 4 * 2 ** 20

async function addSessions(database: RemetraDatabase, backup: readonly BackupSession[]) {
  const sessions = new SessionRepository(database)
  const logs = new LogRepository(database)
  const there = await shownSessions(sessions)
  let [added, logged] = [0, 0]
  for (const each of backup) {
    const shown = each.steps.find(({ number }) => number === each.cursor)?.session
    const same = there.find(({ session }) => equal(session, shown))
    if (same) {
      if (each.log) logged += await logs.addMissing(same.key, each.log)
      continue
    }
    const key = newKey()
    await sessions.add(key, each)
    there.push({ key, session: shown })
    added++
  }
  return { added, logged }
}

/** The state that each kept session is shown in. */
async function shownSessions(sessions: SessionRepository): Promise<{ key: string; session: unknown }[]> {
  const shown: { key: string; session: unknown }[] = []
  for (const key of await sessions.keys()) {
    const opening = await sessions.read(key)
    if (opening.state === 'open') shown.push({ key, session: opening.session })
  }
  return shown
}
