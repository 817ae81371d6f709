import { delay } from 'es-toolkit'
import equal from 'fast-deep-equal'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Evaluated } from '#core/evaluation/evaluate-session'
import { evaluateFrom, evaluating } from '#core/evaluation/evaluate-session'
import type { Session } from '#core/session'
import {
  describeStorageTrouble,
  dropLastWords,
  lastWordsOf,
  leaveLastWords,
  logRepository,
  markFresh,
  newKey,
  onStorageLost,
  secondCopies,
  sessionRepository,
} from '~/persistence'
import { inTasks } from './in-tasks'
import { currentGesture } from './gesture'
import { GUEST_KEY, isUnsent } from './second-screen'
import { firstPicture } from './first-picture'
import type { Parting } from './open-session'
import { OpenSession } from './open-session'
import { usePlanning } from './planning'
import { unlogged } from './unlogged'

/** A session of this tab that could not be written where it was, and goes on under another key. */
export interface Parted {
  why: Parting
  /** The session that it parted from. */
  from: string
  name: string
}

/** What opening a session came to. */
export type Shown =
  | { state: 'open' }
  | { state: 'absent' }
  | { state: 'deleted'; name: string }
  | { state: 'newer'; name: string; raw: unknown }
  | { state: 'unreadable'; why: string; raw: unknown }
  | { state: 'trouble'; why: string }

/** The second copy follows when the hand rests that long, ms. */
const SECOND_COPY_REST = 1000

/** The open session and its results. Results are computed from the session and never stored. */
export const useSessionStore = defineStore('session', () => {
  const open = shallowRef<OpenSession | null>(null)
  const opening = ref<string | null>(null)
  const parted = shallowRef<Parted | null>(null)
  /** Sessions that were left with something unkept; opened again, they are as they were left. */
  const unkept = shallowRef<OpenSession[]>([])
  /** The one that other devices see too: it stays open while another one is on the screen. */
  const shared = shallowRef<OpenSession | null>(null)

  const committed = computed(() => open.value?.committed.value ?? null)
  const session = computed(() => open.value?.draft.value ?? open.value?.othersDraft.value ?? committed.value)
  // Only what changed since, and what that feeds, is evaluated again.
  const evaluated = computed<Evaluated | null>((before) =>
    session.value ? (ahead.get(session.value) ?? evaluateFrom(before ?? null, session.value)) : null,
  )
  const evaluation = computed(() => evaluated.value?.evaluation ?? null)

  // The first picture does without the plan; its worker begins when that stands, or when the plan is asked for.
  const { planned, fetch: fetchPlanner } = usePlanning(() => committed.value)
  const plan = computed(() =>
    planned.value?.session.id === committed.value?.id ? (planned.value?.plan ?? null) : null,
  )

  /** Another session is evaluated a slice at a time, before the page draws it. */
  const ahead = new WeakMap<Session, Evaluated>()
  async function evaluateAhead(next: Session) {
    const all = await inTasks(evaluating(null, next))
    if (all) ahead.set(next, all)
    await delay(0)
  }

  function put(next: OpenSession) {
    const before = open.value
    if (before && before === shared.value) before.cancelPreview()
    else if (before && before !== next) {
      before.leave()
      // What was not kept yet is kept on the way out.
      void (before.isUnkept ? before.retry() : before.settled()).then(() => {
        if (before.isUnkept) unkept.value = [...unkept.value.filter((each) => each !== before), before]
      })
    }
    unkept.value = unkept.value.filter((each) => each !== next)
    open.value = next
    next.onParting = (why) => void part(next, why)
    if (next.key !== GUEST_KEY) next.onChange = copyLater
    if (next.isKept) next.watch()
  }

  /** Opens a kept session. What comes late, because another one was asked for meanwhile, is dropped. */
  async function show(key: string): Promise<Shown> {
    opening.value = key
    try {
      if (open.value?.key === key) return { state: 'open' }
      listen()
      await open.value?.settled()
      const left = [...unkept.value, ...(shared.value ? [shared.value] : [])].find((each) => each.key === key)
      const found = left ? null : await sessionRepository.read(key)
      if (opening.value !== key) return { state: 'open' }
      if (left) put(left)
      else if (found?.state === 'open') {
        await evaluateAhead(found.session)
        if (opening.value !== key) return { state: 'open' }
        put(OpenSession.kept(sessionRepository, found))
        await takeLastWords(key, found.row.writes)
      } else if (found) return found
      return { state: 'open' }
    } catch (error) {
      return { state: 'trouble', why: describeStorageTrouble(error) }
    } finally {
      if (opening.value === key) opening.value = null
    }
  }

  /** What was changed in the moment in which the page went away, noted where that is quick enough. */
  function leaveNote() {
    for (const each of [...unkept.value, ...(open.value ? [open.value] : [])])
      if (each.isUnkept && each.key !== GUEST_KEY)
        leaveLastWords({
          key: each.key,
          // What is being written now may arrive all the same.
          writes: each.writes + Number(each.saving.value),
          label: each.undoLabel.value ?? 'Typed',
          session: each.committed.value,
        })
  }
  /** Takes such a note in; where something else was written meanwhile, it is kept as a session of its own. */
  async function takeLastWords(key: string, writes: number) {
    const words = lastWordsOf(key)
    const now = open.value
    if (!words || now?.key !== key) return
    if (!equal(plainOf(words.session), plainOf(now.committed.value))) {
      if (writes <= words.writes) now.edit(words.label, () => words.session)
      else {
        const copy = { ...words.session, id: newKey(), name: copyName(words.session.name) }
        await sessionRepository.create(newKey(), copy, 'Kept apart')
      }
    }
    await now.settled()
    if (!now.isUnkept) dropLastWords(key)
  }

  /** Keeps a session under a new key and opens it; where storage refuses, it is open all the same and says so. */
  async function start(first: Session, label: string): Promise<string> {
    const key = newKey()
    opening.value = key
    await open.value?.settled()
    await evaluateAhead(first)
    try {
      const row = await sessionRepository.create(key, first, label)
      put(OpenSession.kept(sessionRepository, { state: 'open', row, session: first, damage: null }))
    } catch (error) {
      put(OpenSession.unkept(sessionRepository, key, first, label, error))
    }
    if (opening.value === key) opening.value = null
    copyLater()
    return key
  }

  /** Opens a session before anything of the storage is there, and keeps it as soon as the first picture stands. */
  function startAtOnce(first: Session, label: string, key = newKey()): { key: string; kept: Promise<void> } {
    markFresh(key)
    const fresh = OpenSession.fresh(sessionRepository, key, first, label)
    put(fresh)
    const kept = firstPicture.then(async () => {
      listen()
      fresh.watch()
      await fresh.retry()
      if (fresh.isKept) markFresh(null)
    })
    return { key, kept }
  }

  /**
   * Another tab changed or deleted the session: this tab's version is kept as a session of its own before anybody is asked, so that
   * neither is ever gone.
   */
  async function part(from: OpenSession, why: Parting) {
    const mine = from.committed.value
    const copy = { ...mine, id: newKey(), name: copyName(mine.name) }
    const key = newKey()
    try {
      const row = await sessionRepository.create(key, copy, 'Kept apart')
      await logRepository.copy(from.key, key)
      from.handOver()
      const apart = OpenSession.kept(sessionRepository, { state: 'open', row, session: copy, damage: null })
      if (shared.value === from) shared.value = apart
      if (open.value !== from) return
      put(apart)
      parted.value = { why, from: from.key, name: mine.name }
    } catch (error) {
      from.trouble.value = describeStorageTrouble(error)
    }
  }

  /** Why the second copy is behind; the first is what counts. */
  const copyTrouble = ref<string | null>(null)
  let copying: ReturnType<typeof setTimeout> | undefined
  function copyLater() {
    clearTimeout(copying)
    copying = setTimeout(() => void copyNow(), SECOND_COPY_REST)
  }
  async function copyNow() {
    clearTimeout(copying)
    if (!open.value || open.value.key === GUEST_KEY) return
    const { key, committed: newest } = open.value
    copyTrouble.value = await secondCopies.keep({ key, savedAt: Date.now(), session: newest.value }).then(
      () => null,
      () =>
        'The browser’s file store refused the second copy of the last change. The session itself is stored as the header says.',
    )
  }

  /** How often the open session's log was added to: what is kept beside the database is behind then. */
  const logged = ref(0)
  function noteLogged() {
    logged.value++
    copyLater()
  }

  let listening = false
  function listen() {
    if (listening) return
    listening = true
    onStorageLost(lost)
  }
  function lost() {
    if (open.value?.isKept) open.value.gone.value = 'absent'
  }

  const of = <T>(read: (each: OpenSession) => T) => computed(() => (open.value ? read(open.value) : null))

  return {
    key: of((each) => each.key),
    shared,
    draft: of((each) => each.draft.value),
    othersDraft: of((each) => each.othersDraft.value),
    /** Shows a session of another device. */
    showGuest: put,
    /** What is open, to be shared with other devices. */
    opened: () => open.value,
    session,
    committed,
    evaluation,
    plan,
    opening,
    parted,
    unkept,
    copyTrouble,
    logged,
    noteLogged,
    undoLabel: of((each) => each.undoLabel.value),
    redoLabel: of((each) => each.redoLabel.value),
    savedAt: of((each) => each.savedAt.value),
    saving: of((each) => each.saving.value),
    trouble: of((each) => each.trouble.value),
    damage: of((each) => each.damage.value),
    gone: of((each) => each.gone.value),
    unwritten: of((each) => each.unwritten.value),
    /** Something is nowhere but in this tab. */
    isKept: () => open.value?.isKept ?? false,
    isUnkept: () => (open.value?.isUnkept ?? false) || unkept.value.length > 0 || unlogged.value > 0 || isUnsent.value,
    show,
    start,
    startAtOnce,
    fetchPlanner,
    copyNow,
    /** @returns what is wrong with the change, in words; nothing is changed while another session is being opened. */
    edit: (label: string, change: (each: Session) => Session): string | null => {
      if (!open.value || opening.value) return 'Another session is being opened.'
      return open.value.edit(label, change, currentGesture())
    },
    setDamage: (words: string | null) => {
      if (open.value) open.value.damage.value = words
    },
    endGesture: () => open.value?.endGesture(),
    takeBackGesture: (gesture: string) => open.value?.takeBackGesture(gesture),
    preview: (change: (each: Session) => Session) => {
      if (!opening.value) open.value?.preview(change)
    },
    keepPreview: (label: string) => open.value?.keepPreview(label) ?? null,
    cancelPreview: () => open.value?.cancelPreview(),
    undo: () => {
      if (!opening.value) open.value?.step(-1)
    },
    redo: () => {
      if (!opening.value) open.value?.step(1)
    },
    retry: async () => {
      await open.value?.retry()
    },
    keepAgain: async () => {
      await open.value?.keepAgain()
      if (open.value?.isKept) await secondCopies.bringLogBack(open.value.key)
    },
    restored: async () => {
      await open.value?.restored()
    },
    /** Writes what is open and nowhere else yet. */
    leaveNote,
    takeLastWords,
    keepNow: async () => {
      if (open.value?.isUnkept) await open.value.retry()
    },
    settled: async () => {
      await open.value?.settled()
    },
  }
})

/** A session as it is stored, without keys that hold nothing. */
const plainOf = (session: Session): unknown => JSON.parse(JSON.stringify(session))

export const copyName = (name: string) => `${name.slice(0, 190)} (copy)`
