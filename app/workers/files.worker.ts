import { expose } from 'comlink'
import { readSessionFile } from '#core/files/session-file'
import { RemetraDatabase } from '~/persistence/database'
import { restoreBackup, saveBackup } from '~/persistence/backup-work'
import { sessionAbout } from '~/persistence/session-about'
import { asNamed } from '~/persistence/storage-trouble'

/** Reads and writes whole files beside the page: a long log or a backup would hold it up. */
const work = {
  readSessionFile: async (file: Blob) => readSessionFile(await file.text()),
  saveBackup: (on: string, keys?: readonly string[]) => inDatabase((database) => saveBackup(database, on, keys)),
  sessionAbout: (key: string) => inDatabase((database) => sessionAbout(database, key)),
  restoreBackup: (file: Blob) => inDatabase((database) => restoreBackup(database, file)),
}
export type FileWork = typeof work

async function inDatabase<T>(use: (database: RemetraDatabase) => Promise<T>): Promise<T> {
  const database = new RemetraDatabase()
  try {
    return await use(database)
  } catch (error) {
    throw asNamed(error)
  } finally {
    database.close()
  }
}

expose(work)
