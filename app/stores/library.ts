import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { demoSession } from '#demo/index'
import type { Fault, Session } from '#core/session'
import { blankSession, readSession, readSessionText } from '#core/session'
import type { SessionRow } from '~/persistence'
import { describeStorageTrouble, memos, sessionRepository } from '~/persistence'
import { useSessionStore } from './session'

export type SessionSummary = SessionRow

const LAST_OPEN = 'last-open'

/** The sessions kept in this browser, and how they come and go. */
export const useLibraryStore = defineStore('library', () => {
  const rows = shallowRef<SessionRow[]>([])
  const trouble = ref<string | null>(null)
  const byDate = (a: SessionRow, b: SessionRow) => b.updatedAt - a.updatedAt
  const kept = computed(() => rows.value.filter((row) => row.deletedAt === 0).sort(byDate))
  const deleted = computed(() =>
    rows.value.filter((row) => row.deletedAt > 0).sort((a, b) => b.deletedAt - a.deletedAt),
  )

  const open = useSessionStore()

  /** Keeps a session under a new key and opens it; where storage refuses, it is open all the same. */
  async function add(session: Session, label: string): Promise<string> {
    const key = crypto.randomUUID()
    try {
      await sessionRepository.create(key, session, label)
      await open.open(key)
    } catch (error) {
      open.openUnkept(key, session, error)
    }
    return key
  }

  /** The session to land in: the last one open, or the newest; the demo on a first visit; none where all are deleted. */
  async function landing(): Promise<string | null> {
    try {
      await sessionRepository.purge()
      const all = await sessionRepository.list()
      if (all.length === 0) return await add(demoSession(), 'Demo opened')
      const here = all.filter((row) => row.deletedAt === 0).sort(byDate)
      const last = await memos.get(LAST_OPEN)
      return here.find((row) => row.key === last)?.key ?? here[0]?.key ?? null
    } catch (error) {
      const key = crypto.randomUUID()
      open.openUnkept(key, demoSession(), error)
      return key
    }
  }

  /** Opens a session by its key. False where there is none. */
  async function show(key: string): Promise<boolean> {
    if (open.key === key) return true
    try {
      if (!(await open.open(key))) return false
      await memos.set(LAST_OPEN, key)
      return true
    } catch (error) {
      open.openUnkept(key, demoSession(), error)
      return true
    }
  }

  async function importText(text: string): Promise<{ key: string } | { faults: Fault[] }> {
    const reading = readSessionText(text)
    return reading.ok ? { key: await add(reading.session, 'Imported') } : { faults: reading.faults }
  }

  async function duplicate(key: string): Promise<string | null> {
    const source = await latest(key)
    return source ? add({ ...source, id: crypto.randomUUID(), name: copyName(source.name) }, 'Duplicated') : null
  }

  /** @returns what is wrong with the name, in words. */
  async function rename(key: string, name: string): Promise<string | null> {
    if (key === open.key) return open.edit('Rename the session', (session) => ({ ...session, name }))
    const source = await sessionRepository.read(key)
    const current = source?.revisions.find((each) => each.number === source.row.cursor)
    if (!source || !current) return 'This session is gone; another tab deleted it.'
    const reading = readSession({ ...current.session, name })
    if (!reading.ok) return reading.faults[0]?.message ?? null
    await sessionRepository.commit(source.row, {
      ...current,
      number: current.number + 1,
      label: 'Rename the session',
      session: reading.session,
    })
    return null
  }

  async function latest(key: string): Promise<Session | null> {
    const source = await sessionRepository.read(key)
    return source?.revisions.find((each) => each.number === source.row.cursor)?.session ?? null
  }

  return {
    kept,
    deleted,
    trouble,
    landing,
    show,
    importText,
    duplicate,
    rename,
    startNew: () => add(blankSession(crypto.randomUUID(), 'New session'), 'Started'),
    openDemo: () => add(demoSession(), 'Demo opened'),
    /** After a conflict: this tab’s version goes on as a session of its own. */
    keepAsCopy: (mine: Session) =>
      add({ ...mine, id: crypto.randomUUID(), name: copyName(mine.name) }, 'Kept as a copy'),
    remove: (key: string) => sessionRepository.remove(key),
    restore: (key: string) => sessionRepository.restore(key),
    /** Keeps the list up to date until the returned function is called. */
    watch: () =>
      sessionRepository.watchList(
        (list) => {
          rows.value = list
          trouble.value = null
        },
        (error) => {
          trouble.value = describeStorageTrouble(error)
        },
      ),
  }
})

const copyName = (name: string) => `${name.slice(0, 190)} (copy)`
