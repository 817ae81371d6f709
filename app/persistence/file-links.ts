import type { LinkRow, RemetraDatabase } from './database'

export type FileLink = LinkRow

/** Which session is kept in which file on disk. */
export class FileLinks {
  constructor(private readonly database: RemetraDatabase) {}

  async get(key: string): Promise<FileLink | null> {
    return (await this.database.links.get(key)) ?? null
  }

  async set(link: FileLink): Promise<void> {
    await this.database.links.put(link)
  }

  async drop(key: string): Promise<void> {
    await this.database.links.delete(key)
  }
}
