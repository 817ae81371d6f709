import { RemetraDatabase } from './database'
import { Memos } from './memo'
import { SessionRepository } from './session-repository'
import { ShelfRepository } from './shelf-repository'

const database = new RemetraDatabase()
export const sessionRepository = new SessionRepository(database)
export const shelfRepository = new ShelfRepository(database)
export const memos = new Memos(database)

export { describeStorageTrouble } from './storage-trouble'
export { ConflictError } from './session-repository'
export type { KeptSession } from './session-repository'
export type { RevisionRow, SessionRow, ShelfRow } from './database'
