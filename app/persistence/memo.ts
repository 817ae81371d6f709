import type { RemetraDatabase } from './database'

/** Small facts about this browser that outlive the page. */
export class Memos {
  constructor(private readonly database: RemetraDatabase) {}

  async get(name: string): Promise<string | undefined> {
    return (await this.database.memos.get(name))?.value
  }

  async set(name: string, value: string): Promise<void> {
    await this.database.memos.put({ name, value })
  }
}
