import { delay } from 'es-toolkit'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { LogEntry } from '#core/log/entries'
import { lastMark, logOf, nextTakeNumber, standsAs } from '#core/log/entries'
import type { Log, Mark, MarkHead, Session, Take } from '#core/session'
import { readSession } from '#core/files'
import { headOf, sessionAsStored } from '#core/files/stored-mark'
import type { Aside, NewLogEntry } from '~/persistence'
import { describeStorageTrouble, logRepository, newKey } from '~/persistence'
import { useSessionStore } from './session'
import { guestLog } from './guest-log'
import { GUEST_KEY } from './second-screen'
import { logTrouble, unlogged } from './unlogged'

/** What the storage did not take is offered to it again after that time, ms. */
const AGAIN = 10_000

/** Where a session’s log is: with a session of another device, there. */
const logIn = (key: string): Pick<typeof logRepository, 'add' | 'list' | 'watch'> =>
  key === GUEST_KEY
    ? {
        add: (_, entries) => guestLog.add(entries),
        list: () => guestLog.list(),
        watch: (_, changed) => guestLog.watch(changed),
      }
    : logRepository

/** Entries that wait, by the session that they belong to. */
type Waiting = ReadonlyMap<string, readonly NewLogEntry[]>

/** The log of the open session: what is added to it is kept at once, beside the session’s steps and apart from undo. */
export const useLogStore = defineStore('log', () => {
  const store = useSessionStore()
  const kept = shallowRef<readonly LogEntry[]>([])
  const aside = shallowRef<readonly Aside[]>([])
  /** They stay when another session is opened, and until the page goes. */
  const waiting = shallowRef<Waiting>(new Map())
  const trouble = ref<string | null>(null)
  /** Sessions of marks that were opened. */
  const opened = new Map<string, Mark | null>()
  let stop: () => void = () => {}

  watch(
    () => store.key,
    (key) => {
      stop()
      opened.clear()
      kept.value = []
      aside.value = []
      if (key === null) return
      let watched = true
      const end = logIn(key).watch(
        key,
        async (added) => {
          // A long log is read in one task and shown in the next.
          await delay(0)
          if (!watched) return
          kept.value = [...kept.value, ...added.entries]
          if (added.aside.length > 0) aside.value = [...aside.value, ...added.aside]
        },
        (error) => {
          trouble.value = describeStorageTrouble(error)
        },
      )
      stop = () => {
        watched = false
        end()
      }
    },
    { immediate: true },
  )

  const waitingFor = (key: string | null) => (key === null ? [] : (waiting.value.get(key) ?? []))
  const log = computed<Log>(() => logOf([...kept.value, ...waitingFor(store.key)]))
  const marksById = computed(() => new Map(log.value.marks.map((mark) => [mark.id, mark])))

  function wait(key: string, entries: readonly NewLogEntry[]) {
    const next = new Map(waiting.value)
    if (entries.length > 0) next.set(key, entries)
    else next.delete(key)
    waiting.value = next
    unlogged.value = [...next.values()].reduce((sum, each) => sum + each.length, 0)
    if (unlogged.value === 0) logTrouble.value = null
  }

  /** @returns why it was not added, in words; what storage refuses stays in memory, is said, and tried again */
  async function add(entries: readonly NewLogEntry[]): Promise<string | null> {
    const { key } = store
    if (key === null) return 'No session is open.'
    // A plain copy: the database takes no watched objects.
    const plain = JSON.parse(JSON.stringify(entries)) as NewLogEntry[]
    wait(key, [...waitingFor(key), ...plain])
    return offer(key, plain)
  }

  let again: ReturnType<typeof setTimeout> | undefined
  /** Offers the storage what waits, one offer after the other. */
  let offering: Promise<unknown> = Promise.resolve()
  function offer(key: string, fresh: readonly NewLogEntry[] = []): Promise<string | null> {
    const next = offering.then(() => offerNow(key, fresh))
    offering = next
    return next
  }
  async function offerNow(key: string, fresh: readonly NewLogEntry[]): Promise<string | null> {
    const entries = waitingFor(key)
    if (entries.length === 0) return null
    try {
      const stored = await logIn(key).add(key, entries)
      wait(
        key,
        waitingFor(key).filter((each) => !entries.includes(each)),
      )
      if (store.key === key) {
        kept.value = [...kept.value, ...stored]
        store.noteLogged()
      }
      return null
    } catch (error) {
      if (error instanceof Error && error.name === 'LogFullError') {
        wait(
          key,
          waitingFor(key).filter((each) => !fresh.includes(each)),
        )
        return error.message
      }
      logTrouble.value = `${describeStorageTrouble(error)} The log entries stay in this tab and are tried again.`
      clearTimeout(again)
      again = setTimeout(() => void retry(), AGAIN)
      return null
    }
  }
  const retry = () => Promise.all([...waiting.value.keys()].map((key) => offer(key)))

  /** All of a session’s log, also where no place has shown it yet. */
  async function whole(key: string): Promise<Log> {
    try {
      return logOf([...(await logIn(key).list(key)), ...waitingFor(key)])
    } catch (error) {
      // What is on the screen can be taken along all the same.
      trouble.value = describeStorageTrouble(error)
      return logOf([...(store.key === key ? kept.value : []), ...waitingFor(key)])
    }
  }

  /** The session of a mark as it is stored. */
  function storedSession(id: string): unknown {
    const mark = marksById.value.get(id)
    return mark && sessionAsStored(mark, 'from' in mark ? marksById.value.get(mark.from) : undefined)
  }

  /** A mark with its session, read when it is first wanted; `null` where it cannot be read, which is told. */
  function open(id: string): Mark | null {
    const head = marksById.value.get(id)
    if (!head) return null
    if (!opened.has(id)) {
      const reading = readSession(storedSession(id))
      if (reading.ok) opened.set(id, { ...headOf(head), session: reading.session })
      else {
        opened.set(id, null)
        aside.value = [...aside.value, { name: `Mark “${head.name}”`, why: 'damaged', raw: head }]
      }
    }
    const mark = opened.get(id)
    return mark ? { ...headOf(head), session: mark.session } : null
  }

  /** Whether the session stands as in a mark. */
  const standsAsIn = (session: Session, id: string): boolean => {
    const then = storedSession(id)
    return typeof then === 'object' && then !== null && standsAs(session, then as Session)
  }

  return {
    log,
    whole,
    open,
    standsAsIn,
    /** What the mark of a take is called. */
    markName: (id: string | undefined) => (id === undefined ? '' : (marksById.value.get(id)?.name ?? '')),
    aside,
    trouble,
    retry,
    /** An id for a new entry, that no other tab or computer gives. */
    newId: (kind: 'mark' | 'take') => `${kind}-${newKey()}`,
    addMark: (mark: Mark | MarkHead) => add([{ mark }]),
    addTake: (take: Take) => add([{ take }]),
    nextNumber: computed(() => nextTakeNumber(log.value)),
    lastMark: computed(() => lastMark(log.value)),
  }
})
