import equal from 'fast-deep-equal'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Gear } from '#core/gear'
import { nextId, nextName } from '#core/model'
import { readGear } from '#core/files'
import type { Aside, Shelf, ShelfRow } from '~/persistence'
import { describeStorageTrouble, shelfRepository } from '~/persistence'

/** The gear shelf: every box one owns or meets, apart from the sessions. */
export const useShelfStore = defineStore('shelf', () => {
  const rows = shallowRef<ShelfRow[]>([])
  const aside = shallowRef<readonly Aside[]>([])
  const trouble = ref<string | null>(null)
  const items = computed(() =>
    rows.value
      .filter((row) => row.deletedAt === 0)
      .map((row) => row.item)
      .sort((a, b) => a.kind.localeCompare(b.kind) || a.name.localeCompare(b.name)),
  )
  let stop: (() => void) | null = null
  /** The storage took nothing: the shelf is in this tab only. */
  let inMemory = false

  function show(found: Shelf) {
    rows.value = found.rows
    aside.value = found.aside
  }
  function fail(error: unknown) {
    trouble.value = describeStorageTrouble(error)
  }
  const inTab = (item: Gear): ShelfRow => ({ id: item.id, item, updatedAt: 0, writes: 0, deletedAt: 0, version: 0 })

  /** Opens the shelf once; a storage that refuses is told, and the shipped items are there all the same. */
  async function open(): Promise<void> {
    if (stop) return
    const seeds = async () => (await import('#demo/shelf')).shelfGear()
    stop = shelfRepository.watch(show, fail)
    try {
      await shelfRepository.seed(seeds)
      show(await shelfRepository.list())
    } catch (error) {
      fail(error)
      inMemory = true
      rows.value = (await seeds()).map(inTab)
    }
  }

  /** Puts new items on the shelf. @returns the ids under which they stand: one in use gives way to a free one. */
  async function add(list: readonly Gear[]): Promise<string[]> {
    try {
      if (inMemory) return addInTab(list)
      const ids = await shelfRepository.add(list)
      show(await shelfRepository.list())
      return ids
    } catch (error) {
      fail(error)
      return addInTab(list)
    }
  }
  function addInTab(list: readonly Gear[]): string[] {
    const taken = new Set(rows.value.map((row) => row.id))
    const fresh = list.map((item) => {
      const id = nextId(item.id, taken)
      taken.add(id)
      return { ...item, id }
    })
    rows.value = [...rows.value, ...fresh.map(inTab)]
    return fresh.map(({ id }) => id)
  }

  const get = (id: string) => items.value.find((item) => item.id === id) ?? null

  /** Changes an item, if the result is a valid one. @returns what is wrong, in words. */
  function edit(id: string, change: (item: Gear) => Gear): string | null {
    const item = get(id)
    if (!item) return 'This item is gone from the shelf.'
    const reading = readGear(JSON.parse(JSON.stringify(change(item))))
    if (!reading.ok) return reading.faults[0]?.message ?? 'This cannot be.'
    // On the screen at once; the database follows.
    rows.value = rows.value.map((row) => (row.id === id ? { ...row, item: reading.gear } : row))
    if (!inMemory) void write(item, reading.gear)
    return null
  }
  async function write(from: Gear, to: Gear) {
    try {
      trouble.value = await shelfRepository.change(from, to)
      if (trouble.value !== null) rows.value = (await shelfRepository.list()).rows
    } catch (error) {
      fail(error)
    }
  }

  /** Puts a copy of a session's box on the shelf, over its own item where it came from there. @returns its id. */
  async function keepCopy(gear: Gear): Promise<string> {
    const { shelf, ...plain } = gear
    const own = shelf ? get(shelf) : null
    if (!own) return (await add([plain as Gear]))[0] ?? gear.id
    edit(own.id, () => ({ ...plain, id: own.id }) as Gear)
    return own.id
  }

  async function duplicate(id: string): Promise<string | null> {
    const item = get(id)
    if (!item) return null
    const names = new Set(items.value.map(({ name }) => name))
    return (await add([{ ...item, name: nextName(item.name, names) }]))[0] ?? null
  }

  /** Takes items in beside what is there: the same is skipped, another one under the same id gets an id of its own. */
  async function take(list: readonly Gear[]): Promise<{ added: number; same: number }> {
    const fresh = list.filter((item) => !equal(get(item.id), item))
    await add(fresh)
    return { added: fresh.length, same: list.length - fresh.length }
  }

  async function mark(action: Promise<void>): Promise<boolean> {
    try {
      await action
      return true
    } catch (error) {
      fail(error)
      return false
    }
  }

  return {
    items,
    trouble,
    aside,
    open,
    add,
    get,
    edit,
    keepCopy,
    duplicate,
    take,
    remove: (id: string) => mark(shelfRepository.remove(id)),
    restore: (id: string) => mark(shelfRepository.restore(id)),
  }
})
