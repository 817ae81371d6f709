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

  /**
   * The number of this day of use: one more for each calendar day on which the program was opened.
   * Ages are counted in it, so that a clock that is wrong for an hour costs a day and not what was deleted.
   */
  async dayOfUse(today: string): Promise<number> {
    return this.database.transaction('rw', this.database.memos, async () => {
      const [last = '', count = '0'] = ((await this.get('days-of-use')) ?? '').split(' ')
      if (last === today) return Number(count)
      await this.set('days-of-use', `${today} ${Number(count) + 1}`)
      return Number(count) + 1
    })
  }
}
