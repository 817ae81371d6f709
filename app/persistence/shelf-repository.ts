import { liveQuery } from 'dexie'
import type { Gear } from '#core/gear'
import { merge } from '#core/edits'
import { nextId } from '#core/model'
import { readGear } from '#core/files'
import type { Aside } from './aside'
import { ROW_VERSION, aside, isNewer } from './aside'
import { NewerDataError } from './conflict'
import type { RemetraDatabase, ShelfRow } from './database'

const SEEDED = 'shelf-seeded'

/** Why an edit of an item was not taken, in words. */
export type Refusal = string

export interface Shelf {
  rows: ShelfRow[]
  aside: Aside[]
}

/** The gear shelf in the browser's database: apart from the sessions, which carry copies. */
export class ShelfRepository {
  constructor(
    private readonly database: RemetraDatabase,
    private readonly now: () => number = Date.now,
  ) {}

  /** The items that can be read; one that cannot stays where it is and is named. */
  async list(): Promise<Shelf> {
    const left: Aside[] = []
    const rows = (await this.database.shelf.toArray()).flatMap((row) => {
      const reading = isNewer(row) ? null : readGear(row.item)
      if (reading?.ok) return [{ ...row, item: reading.gear, writes: row.writes ?? 0 }]
      const { name } = (row.item ?? {}) as { name?: unknown }
      left.push(aside(typeof name === 'string' ? `“${name.slice(0, 80)}”` : `Item ${row.id}`, row))
      return []
    })
    return { rows, aside: left }
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

  /**
   * Puts items beside what is there: an id that is in use, also by a deleted item, gives way to a free one.
   * @returns the ids under which they stand, in their order
   */
  add(items: readonly Gear[]): Promise<string[]> {
    return this.database.transaction('rw', this.database.shelf, async () => {
      const taken = new Set(await this.database.shelf.toCollection().primaryKeys())
      const rows = items.map((item) => {
        const id = nextId(item.id, taken)
        taken.add(id)
        return this.row({ ...item, id })
      })
      await this.database.shelf.bulkAdd(rows)
      return rows.map((row) => row.id)
    })
  }

  /**
   * Changes an item that is shown as `from` into `to`. What another tab changed of it meanwhile is kept beside it.
   * @returns why not, where both changed the same place or the item is gone
   */
  change(from: Gear, to: Gear): Promise<Refusal | null> {
    return this.database.transaction('rw', this.database.shelf, async () => {
      const stored = await this.database.shelf.get(from.id)
      if (!stored || stored.deletedAt > 0)
        return 'This item was removed from the shelf in another tab. Restore it first.'
      if (isNewer(stored)) return 'A newer version of Remetra changed this item. Reload the page to use that version.'
      const merged = merge<Gear>(from, to, stored.item)
      if (!merged.ok) return 'Another tab changed this figure; its value is shown now.'
      const reading = readGear(merged.merged)
      if (!reading.ok) return reading.faults[0]?.message ?? 'This cannot be.'
      await this.database.shelf.put({ ...this.row(reading.gear), writes: (stored.writes ?? 0) + 1 })
      return null
    })
  }

  remove(id: string): Promise<void> {
    return this.mark(id, this.now())
  }

  restore(id: string): Promise<void> {
    return this.mark(id, 0)
  }

  watch(changed: (found: Shelf) => void, failed: (error: unknown) => void): () => void {
    const subscription = liveQuery(() => this.list()).subscribe(changed, failed)
    return () => subscription.unsubscribe()
  }

  private mark(id: string, deletedAt: number): Promise<void> {
    return this.database.transaction('rw', this.database.shelf, async () => {
      const stored = await this.database.shelf.get(id)
      if (!stored) throw new Error('This item is no longer on the shelf.')
      if (isNewer(stored)) throw new NewerDataError('written by a newer version')
      await this.database.shelf.put({ ...stored, deletedAt, writes: (stored.writes ?? 0) + 1 })
    })
  }

  private row = (item: Gear): ShelfRow => ({
    id: item.id,
    item,
    updatedAt: this.now(),
    writes: 1,
    deletedAt: 0,
    version: ROW_VERSION,
  })
}
