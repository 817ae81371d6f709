import { RemetraDatabase } from './database'
import { FileLinks } from './file-links'
import { LogRepository } from './log-repository'
import { Memos } from './memo'
import { SecondCopies } from './second-copy'
import { SessionRepository } from './session-repository'
import { ShelfRepository } from './shelf-repository'
import { TrainerRepository } from './trainer-repository'

/** Everything that stands on the database, made once. It is fetched beside the first picture, which does without it on a first visit. */
const database = new RemetraDatabase()
export const sessionRepository = new SessionRepository(database)
export const shelfRepository = new ShelfRepository(database)
export const logRepository = new LogRepository(database)
export const trainerRepository = new TrainerRepository(database)
export const memos = new Memos(database)
export const fileLinks = new FileLinks(database)
export const secondCopies = new SecondCopies(logRepository)

/** Whether a newer version of the program made the database: it then does not open. */
export const isNewerDatabase = (): Promise<boolean> =>
  database.open().then(
    () => false,
    (error: unknown) => error instanceof Error && error.name === 'NewerDatabaseError',
  )

/** Calls back when the database is closed or deleted under the open page, by this browser or another tab. */
export function onStorageLost(lost: () => void): void {
  database.on('close', lost)
  // A newer version or a deletion waits for this connection: it is let go, and what is open is told to be unkept.
  database.on('versionchange', () => {
    database.close({ disableAutoOpen: true })
    lost()
  })
}
