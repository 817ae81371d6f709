import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { demoSession } from '#demo/index'
import { asChange } from '#core/plan/as-change'
import type { Log, Session } from '#core/session'
import { applySettings, blankSession } from '#core/edits'
import { nextName } from '#core/model'
import { readSession } from '#core/files'
import type { SecondCopy, SessionRow } from '~/persistence'
import {
  describeStorageTrouble,
  hasDatabase,
  hasNewerDatabase,
  isNewer,
  isMarkedFresh,
  keptCountNoted,
  logRepository,
  memos,
  newKey,
  noteKeptCount,
  rawDatabase,
  secondCopies,
  sessionRepository,
} from '~/persistence'
import { latePart } from './late-part'
import type { Shown } from './session'
import { useSessionStore } from './session'

export { RESTORABLE_DAYS } from '~/persistence'
export type { Aside, AsideRow, SessionAbout } from '~/persistence'
export type SessionSummary = SessionRow

const LAST_OPEN = 'last-open'
const LAST_BACKUP = 'last-backup'
const FIRST_KEPT = 'first-kept'

/** Where to go when the program is opened without an address. */
export type Landing = { key: string } | { at: 'sessions' }

/** The sessions kept in this browser, and how they come and go. */
export const useLibraryStore = defineStore('library', () => {
  const rows = shallowRef<SessionRow[]>([])
  const trouble = ref<string | null>(null)
  /** Sessions that were kept and whose database is empty now, with what second copies there are of them. */
  const vanished = shallowRef<{ count: number; copies: SecondCopy[] } | null>(null)
  const byDate = (a: SessionRow, b: SessionRow) => b.updatedAt - a.updatedAt
  const kept = computed(() => rows.value.filter((row) => row.deletedAt === 0).sort(byDate))
  const deleted = computed(() =>
    rows.value.filter((row) => row.deletedAt > 0).sort((a, b) => b.deletedAt - a.deletedAt),
  )

  const open = useSessionStore()

  /** Does something to the store that may fail, and says so. @returns whether it was done. */
  async function attempt(action: () => Promise<unknown>): Promise<boolean> {
    try {
      await action()
      trouble.value = null
      return true
    } catch (error) {
      trouble.value = describeStorageTrouble(error)
      return false
    }
  }

  /** The same with a result: `null` where it failed. */
  async function tried<T>(action: () => Promise<T>): Promise<T | null> {
    let result: T | null = null
    await attempt(async () => {
      result = await action()
    })
    return result
  }

  const today = () => memos.dayOfUse(new Date().toDateString())
  const remember = (key: string) => attempt(() => memos.set(LAST_OPEN, key))

  async function add(session: Session, label: string): Promise<string> {
    const key = await open.start(session, label)
    if (!open.trouble) {
      noteKeptCount(Math.max(1, kept.value.length, keptCountNoted()))
      await remember(key)
    }
    return key
  }
  /** A session of one's own: the browser is asked not to clear it away when space gets short. */
  async function addOwn(session: Session, label: string): Promise<string> {
    await globalThis.navigator?.storage?.persist?.()
    await attempt(async () => {
      if (!(await memos.get(FIRST_KEPT))) await memos.set(FIRST_KEPT, String(Date.now()))
    })
    return add(session, label)
  }

  /** Where to land: the last session open, or the newest; the demo on a first visit; the list where there is none left. */
  async function landing(): Promise<Landing> {
    try {
      // A first visit has its picture before the storage is even fetched.
      if (keptCountNoted() === 0 && !(await hasDatabase())) return landInDemo()
      await secondCopies.drop(await sessionRepository.purge(await today()))
      const all = await sessionRepository.list()
      if (all.length === 0 && (await lookForVanished())) return { at: 'sessions' }
      if (all.length === 0) return { key: await add(demoSession(), 'Demo opened') }
      const here = all.filter((row) => row.deletedAt === 0).sort(byDate)
      if (here.length > 0) noteKeptCount(here.length)
      const last = await memos.get(LAST_OPEN)
      const key = here.find((row) => row.key === last)?.key ?? here[0]?.key
      return key ? { key } : { at: 'sessions' }
    } catch (error) {
      trouble.value = describeStorageTrouble(error)
      // Sessions that are there but cannot be reached now are not answered with a demo.
      return keptCountNoted() > 0 ? { at: 'sessions' } : { key: await open.start(demoSession(), 'Demo opened') }
    }
  }

  function landInDemo(again?: string): Landing {
    const { key, kept: written } = open.startAtOnce(demoSession(), 'Demo opened', again)
    if (again) void open.takeLastWords(again, 0)
    void written.then(() => {
      if (open.trouble) return undefined
      noteKeptCount(1)
      return remember(key)
    })
    return { key }
  }

  /** An empty database is a first visit only where nothing tells of an earlier one. */
  async function lookForVanished(): Promise<boolean> {
    const copies = await secondCopies.list()
    const count = Math.max(keptCountNoted(), copies.length)
    vanished.value = count > 0 ? { count, copies } : null
    return count > 0
  }
  /** Brings back what there is of the sessions that vanished. */
  async function recover(): Promise<void> {
    for (const copy of vanished.value?.copies ?? []) if (!(await attempt(() => putBack(copy)))) return
    forgetVanished()
  }
  /** A second copy where the database has nothing sound, with what of its log is only there. */
  async function putBack({ key, session }: SecondCopy): Promise<void> {
    await sessionRepository.replace(key, session, 'From the second copy')
    await secondCopies.bringLogBack(key)
  }
  function forgetVanished() {
    vanished.value = null
    noteKeptCount(kept.value.length)
  }

  /** Opens a session by its key; where the database does not give it, its second copy does. */
  async function show(key: string): Promise<Shown> {
    const shown = await open.show(key)
    if (shown.state === 'absent' && isMarkedFresh(key)) {
      landInDemo(key)
      return { state: 'open' }
    }
    // What a newer version wrote is not replaced by an older copy of it.
    if (shown.state === 'absent' || shown.state === 'unreadable') {
      const copy = await secondCopies.read(key).catch(() => null)
      if (copy) return showCopy(copy)
    }
    if (shown.state === 'open' && open.isKept()) await remember(key)
    return shown
  }
  async function showCopy(copy: SecondCopy): Promise<Shown> {
    if (!(await attempt(() => putBack(copy)))) return { state: 'trouble', why: trouble.value ?? '' }
    const shown = await open.show(copy.key)
    open.setDamage(
      'What the browser’s database kept of this session can no longer be read. This is its second copy, with the last state and without the steps of undo.',
    )
    return shown
  }

  /** Takes a session in that was read from a file, with its log. */
  async function take({ session, log }: { session: Session; log: Log | null }): Promise<string> {
    const key = await addOwn(session, 'Imported')
    if (log) await attempt(() => logRepository.addMissing(key, log))
    return key
  }

  const names = () => new Set(kept.value.map((row) => row.name))

  async function duplicate(key: string): Promise<string | null> {
    const source = await sessionRepository.read(key)
    if (source.state !== 'open') return null
    return addOwn({ ...source.session, id: newKey(), name: nextName(source.session.name, names()) }, 'Duplicated')
  }

  /** @returns what is wrong with the name, in words. */
  async function rename(key: string, name: string): Promise<string | null> {
    const change = (session: Session) => ({ ...session, name })
    if (key === open.key) return open.edit('Rename the session', change)
    const source = await sessionRepository.read(key)
    if (source.state !== 'open') return 'This session is gone; another tab deleted it.'
    const reading = readSession(change(source.session))
    if (!reading.ok) return reading.faults[0]?.message ?? null
    const step = { number: source.row.cursor + 1, label: 'Rename the session' }
    const steps = [...source.row.steps.filter(({ number }) => number <= source.row.cursor), step].slice(-200)
    await sessionRepository.sync(source.row, {
      name: reading.session.name,
      steps,
      cursor: step.number,
      unwritten: [{ ...step, session: reading.session }],
    })
    return null
  }

  return {
    kept,
    deleted,
    trouble,
    vanished,
    landing,
    recover,
    forgetVanished,
    show,
    take,
    addOwn,
    duplicate: (key: string) => tried(() => duplicate(key)),
    rename: async (key: string, name: string) => {
      let wrong: string | null = null
      const done = await attempt(async () => {
        wrong = await rename(key, name)
      })
      return done ? (wrong as string | null) : trouble.value
    },
    /** With the gains planned. */
    startPlanned: async (first: Session) => {
      const named = { ...first, id: newKey(), name: nextName(first.name, names()) }
      const part = await latePart(() => import('#core/plan/plan-session'))
      return addOwn(part ? applySettings(named, part.planSession(named).settings.map(asChange)) : named, 'Started')
    },
    startFrom: (session: Session) =>
      addOwn({ ...session, id: newKey(), name: nextName(session.name, names()) }, 'Started from a template'),
    startBlank: () => addOwn(blankSession(newKey(), nextName('New session', names())), 'Started'),
    openDemo: () => add(demoSession(), 'Demo opened'),
    /** Writes what is open and nowhere else yet. */
    keepNow: () => open.keepNow(),
    attempt: tried,
    /** What was replaced by something else and is still there. */
    replaced: async () => (await tried(() => sessionRepository.replaced())) ?? [],
    isNewer,
    /** Whether a newer version of the program made the database, which is then left alone. */
    isNewerDatabase: async () => hasNewerDatabase(),
    /** Everything in the database as it is. */
    rawFile: () => tried(rawDatabase),
    dropReplaced: (number: number) => attempt(() => sessionRepository.dropReplaced(number)),
    /**
     * Adds what a session's log does not have of another copy of it.
     * @returns how many entries; `null` where that failed, which is told
     */
    addToLog: (key: string, log: Log) => tried(() => logRepository.addMissing(key, log)),
    /** When the last backup was made, or this browser began to keep something. */
    lastBackup: async () => {
      let since: string | undefined
      await attempt(async () => {
        since = (await memos.get(LAST_BACKUP)) ?? (await memos.get(FIRST_KEPT))
      })
      return since === undefined ? null : Number(since)
    },
    backedUp: async () => {
      const now = Date.now()
      await attempt(() => memos.set(LAST_BACKUP, String(now)))
      return now
    },
    remove: (key: string) => attempt(async () => sessionRepository.remove(key, await today())),
    restore: (key: string) => attempt(() => sessionRepository.restore(key)),
    /** Frees the space of deleted sessions at once. */
    erase: (keys: readonly string[]) =>
      attempt(async () => {
        await sessionRepository.erase(keys)
        await secondCopies.drop(keys)
      }),
    /** Keeps the list up to date until the returned function is called. */
    watch: () =>
      sessionRepository.watchList(
        (list) => {
          rows.value = list
          // While it is not told that sessions vanished, the note stays what it was.
          if (!vanished.value) noteKeptCount(kept.value.length)
        },
        (error) => {
          trouble.value = describeStorageTrouble(error)
        },
      ),
  }
})
