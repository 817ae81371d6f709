import equal from 'fast-deep-equal'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Gear } from '#core/session'
import { readGear } from '#core/session'
import type { ShelfRow } from '~/persistence'
import { describeStorageTrouble, shelfRepository } from '~/persistence'

/** The gear shelf: every box one owns or meets, apart from the sessions. */
export const useShelfStore = defineStore('shelf', () => {
  const rows = shallowRef<ShelfRow[]>([])
  const trouble = ref<string | null>(null)
  const items = computed(() =>
    rows.value
      .filter((row) => row.deletedAt === 0)
      .map((row) => row.item)
      .sort((a, b) => a.kind.localeCompare(b.kind) || a.name.localeCompare(b.name)),
  )
  let stop: (() => void) | null = null

  /** Opens the shelf once; a storage that refuses is told, and the shipped items are there all the same. */
  async function open(): Promise<void> {
    if (stop) return
    const seeds = async () => (await import('#demo/shelf')).shelfGear()
    stop = shelfRepository.watch(
      (list) => {
        rows.value = list
      },
      (error) => {
        trouble.value = describeStorageTrouble(error)
      },
    )
    try {
      await shelfRepository.seed(seeds)
      rows.value = await shelfRepository.list()
    } catch (error) {
      trouble.value = describeStorageTrouble(error)
      rows.value = (await seeds()).map((item) => ({ id: item.id, item, updatedAt: 0, deletedAt: 0 }))
    }
  }

  async function keep(list: readonly Gear[]): Promise<void> {
    try {
      await shelfRepository.put(list)
      trouble.value = null
    } catch (error) {
      trouble.value = describeStorageTrouble(error)
      const byId = new Map(rows.value.map((row) => [row.id, row]))
      for (const item of list) byId.set(item.id, { id: item.id, item, updatedAt: 0, deletedAt: 0 })
      rows.value = [...byId.values()]
    }
  }

  const get = (id: string) => items.value.find((item) => item.id === id) ?? null

  function freeId(wanted: string): string {
    const taken = new Set(rows.value.map((row) => row.id))
    if (!taken.has(wanted)) return wanted
    for (let n = 2; ; n++) if (!taken.has(`${wanted.slice(0, 58)}-${n}`)) return `${wanted.slice(0, 58)}-${n}`
  }

  /** Changes an item, if the result is a valid one. @returns what is wrong, in words. */
  function edit(id: string, change: (item: Gear) => Gear): string | null {
    const item = get(id)
    if (!item) return 'This item is gone from the shelf.'
    const reading = readGear(JSON.parse(JSON.stringify(change(item))))
    if (!reading.ok) return reading.faults[0]?.message ?? 'This cannot be.'
    // On the screen at once; the database follows.
    rows.value = rows.value.map((row) => (row.id === id ? { ...row, item: reading.gear } : row))
    void keep([reading.gear])
    return null
  }

  /** Puts a copy of a session's box on the shelf, over its own item where it came from there. @returns its id. */
  async function keepCopy(gear: Gear): Promise<string> {
    const { shelf, ...plain } = gear
    const id = shelf && get(shelf) ? shelf : freeId(gear.id)
    await keep([{ ...plain, id } as Gear])
    return id
  }

  async function duplicate(id: string): Promise<string | null> {
    const item = get(id)
    if (!item) return null
    const copy = { ...item, id: freeId(item.id), name: `${item.name.slice(0, 190)} (copy)` }
    await keep([copy])
    return copy.id
  }

  /** Takes items in beside what is there: the same is skipped, another one under the same id gets an id of its own. */
  async function take(list: readonly Gear[]): Promise<{ added: number; same: number }> {
    const fresh: Gear[] = []
    for (const item of list) {
      const there = get(item.id)
      if (there && equal(there, item)) continue
      const id = rows.value.some((row) => row.id === item.id && row.deletedAt === 0) ? freeId(item.id) : item.id
      fresh.push({ ...item, id })
    }
    await keep(fresh)
    return { added: fresh.length, same: list.length - fresh.length }
  }

  async function mark(action: Promise<void>): Promise<void> {
    try {
      await action
    } catch (error) {
      trouble.value = describeStorageTrouble(error)
    }
  }

  return {
    items,
    trouble,
    open,
    keep,
    get,
    edit,
    keepCopy,
    duplicate,
    take,
    freeId,
    remove: (id: string) => mark(shelfRepository.remove(id)),
    restore: (id: string) => mark(shelfRepository.restore(id)),
  }
})
