import { computed, ref, shallowRef, watch } from 'vue'
import type { SessionAbout, SessionSummary } from '~/stores/library'
import { aboutSession } from '~/composables/file-reader'

/** From so many sessions on they are searched and sorted. */
const MANY = 10

export const sessionOrders = [
  { value: 'date', text: 'Newest first' },
  { value: 'name', text: 'By name' },
  { value: 'steps', text: 'Open steps first' },
] as const
export type SessionOrder = (typeof sessionOrders)[number]['value']

/**
 * The list of sessions: what is told of each, which are searched for, in which order, and which are chosen.
 * @param before what is still on its way to the storage is there once this is done
 */
export function useSessionList(rows: () => readonly SessionSummary[], before: () => Promise<unknown>) {
  /** By session and its last write: what was told of another state is told anew. */
  const told = shallowRef<ReadonlyMap<string, SessionAbout | null>>(new Map())
  const keyOf = ({ key, writes }: SessionSummary) => `${key} ${writes}`
  const aboutOf = (row: SessionSummary) => told.value.get(keyOf(row)) ?? null
  let running = false
  async function tell() {
    if (running) return
    running = true
    await before()
    for (let next = rows().find((row) => !told.value.has(keyOf(row))); next;) {
      const about = await aboutSession(next.key).catch(() => null)
      told.value = new Map(told.value).set(keyOf(next), about)
      next = rows().find((row) => !told.value.has(keyOf(row)))
    }
    running = false
  }
  watch(rows, tell, { immediate: true })

  const search = ref('')
  const order = ref<SessionOrder>('date')
  const isMany = computed(() => rows().length >= MANY)
  const matches = (row: SessionSummary, words: string) =>
    [row.name, ...(aboutOf(row)?.strips ?? [])].some((text) => text.toLowerCase().includes(words))
  const shown = computed(() => {
    const words = isMany.value ? search.value.trim().toLowerCase() : ''
    const found = rows().filter((row) => words === '' || matches(row, words))
    if (!isMany.value || order.value === 'date') return found
    if (order.value === 'name') return [...found].sort((a, b) => a.name.localeCompare(b.name))
    const open = (row: SessionSummary) => aboutOf(row)?.steps.open ?? 0
    return [...found].sort((a, b) => open(b) - open(a))
  })

  const picked = ref<ReadonlySet<string>>(new Set())
  /** Only what is on the list: another tab may have deleted the rest. */
  const chosen = computed(() => shown.value.filter(({ key }) => picked.value.has(key)))
  function choose(key: string, on: boolean) {
    const next = new Set(picked.value)
    if (on) next.add(key)
    else next.delete(key)
    picked.value = next
  }
  const chooseAll = (on: boolean) => {
    picked.value = new Set(on ? shown.value.map(({ key }) => key) : [])
  }
  return { aboutOf, search, order, isMany, shown, chosen, choose, chooseAll }
}
