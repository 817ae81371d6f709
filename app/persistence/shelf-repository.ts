import { liveQuery } from 'dexie'
import type { Gear } from '#core/session'
import type { RemetraDatabase, ShelfRow } from './database'

const SEEDED = 'shelf-seeded'

/** The gear shelf in the browser's database: apart from the sessions, which carry copies. */
export class ShelfRepository {
  constructor(
    private readonly database: RemetraDatabase,
    private readonly now: () => number = Date.now,
  ) {}

  list(): Promise<ShelfRow[]> {
    return this.database.shelf.toArray()
  }

  /** Puts the first items on a shelf that never had any; a shelf that was emptied by hand stays empty. */
  async seed(items: () => Promise<readonly Gear[]>): Promise<void> {
    if (await this.database.memos.get(SEEDED)) return
    const first = await items()
    await this.database.transaction('rw', this.database.shelf, this.database.memos, async () => {
      if (await this.database.memos.get(SEEDED)) return
      await this.database.shelf.bulkPut(first.map((item) => this.row(item)))
      await this.database.memos.put({ name: SEEDED, value: String(this.now()) })
    })
  }

  async put(items: readonly Gear[]): Promise<void> {
    await this.database.shelf.bulkPut(items.map((item) => this.row(item)))
  }

  async remove(id: string): Promise<void> {
    await this.database.shelf.update(id, { deletedAt: this.now() })
  }

  async restore(id: string): Promise<void> {
    await this.database.shelf.update(id, { deletedAt: 0 })
  }

  watch(changed: (rows: ShelfRow[]) => void, failed: (error: unknown) => void): () => void {
    const subscription = liveQuery(() => this.list()).subscribe(changed, failed)
    return () => subscription.unsubscribe()
  }

  private row = (item: Gear): ShelfRow => ({ id: item.id, item, updatedAt: this.now(), deletedAt: 0 })
}
