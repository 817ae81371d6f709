import equal from 'fast-deep-equal'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { planSession } from '#core/plan/plan-session'
import type { Session } from '#core/session'
import { readSession } from '#core/session'
import type { KeptSession, RevisionRow, SessionRow } from '~/persistence'
import { ConflictError, describeStorageTrouble, sessionRepository } from '~/persistence'

/**
 * The open session: what is committed, what is being tried out by a gesture, and the way back.
 *
 * The history in memory leads and the database follows it, so that undo never waits and a full or blocked storage
 * costs nothing that is on the screen. Results are computed from the session and never stored.
 */
export const useSessionStore = defineStore('session', () => {
  const key = ref<string | null>(null)
  const history = shallowRef<RevisionRow[]>([])
  const cursor = ref(0)
  const draft = shallowRef<Session | null>(null)

  const savedAt = ref<number | null>(null)
  const saving = ref(false)
  const trouble = ref<string | null>(null)
  /** Set when another tab wrote in between: this tab’s session, not yet kept anywhere. */
  const conflict = shallowRef<Session | null>(null)
  const goneElsewhere = ref(false)

  const position = computed(() => history.value.findIndex((revision) => revision.number === cursor.value))
  const committed = computed(() => history.value[position.value]?.session ?? null)
  const session = computed(() => draft.value ?? committed.value)
  const evaluation = computed(() => (session.value ? evaluateSession(session.value) : null))
  const plan = computed(() => (committed.value ? planSession(committed.value) : null))
  const undoLabel = computed(() => (position.value > 0 ? (history.value[position.value]?.label ?? null) : null))
  const redoLabel = computed(() => history.value[position.value + 1]?.label ?? null)

  // What this tab last knew of the database: the row that it may write over, and news that arrived meanwhile.
  let known: SessionRow | null = null
  let news: KeptSession | null = null
  let pending = 0
  let queue: Promise<void> = Promise.resolve()
  let stopWatching: (() => void) | null = null

  function close() {
    stopWatching?.()
    stopWatching = null
    known = null
    news = null
    draft.value = null
    conflict.value = null
    goneElsewhere.value = false
    trouble.value = null
  }

  function show(kept: KeptSession) {
    known = kept.row
    history.value = kept.revisions
    cursor.value = kept.row.cursor
    savedAt.value = kept.row.updatedAt
  }

  /** Opens a kept session. False where there is none with this key. */
  async function open(wanted: string): Promise<boolean> {
    await queue
    if (key.value === wanted && history.value.length > 0) return true
    const kept = await sessionRepository.read(wanted)
    if (!kept || kept.revisions.length === 0) return false
    close()
    key.value = wanted
    show(kept)
    stopWatching = sessionRepository.watch(wanted, hear, (error) => {
      trouble.value = describeStorageTrouble(error)
    })
    return true
  }

  /** Opens a session that no storage keeps; the reason stays on the screen. */
  function openUnkept(ownKey: string, unkept: Session, reason: unknown) {
    close()
    key.value = ownKey
    history.value = [{ key: ownKey, number: 0, label: 'Opened', session: unkept }]
    cursor.value = 0
    savedAt.value = null
    trouble.value = describeStorageTrouble(reason)
  }

  /** The database changed, by this tab or another one. */
  function hear(kept: KeptSession | null) {
    if (kept === null) {
      goneElsewhere.value = true
      return
    }
    goneElsewhere.value = false
    news = kept
    follow()
  }

  /** Shows what another tab committed, unless something of this tab is under way: then the next write settles it. */
  function follow() {
    if (!news || !known || pending > 0 || draft.value || conflict.value) return
    if (news.row.writes > known.writes) show(news)
  }

  function write(action: (known: SessionRow) => Promise<SessionRow>, mine: Session) {
    if (!known) return
    pending++
    saving.value = true
    queue = queue.then(async () => {
      if (!known) return
      try {
        known = await action(known)
        savedAt.value = known.updatedAt
        trouble.value = null
      } catch (error) {
        if (error instanceof ConflictError) conflict.value = mine
        else trouble.value = describeStorageTrouble(error)
      } finally {
        pending--
        saving.value = pending > 0
      }
      follow()
    })
  }

  function commit(label: string, next: Session) {
    const kept = history.value.slice(0, position.value + 1)
    const revision = { key: key.value ?? '', number: cursor.value + 1, label, session: next }
    history.value = [...kept, revision]
    cursor.value = revision.number
    write((row) => sessionRepository.commit(row, revision), next)
  }

  /**
   * Changes the session for good, if the result is a valid one.
   * @returns what is wrong with the change, in words, and then nothing was changed; `null` where it was taken.
   */
  function edit(label: string, change: (session: Session) => Session): string | null {
    if (!committed.value) return null
    // As it would stand in a file: a key that holds nothing is none.
    const reading = readSession(JSON.parse(JSON.stringify(change(committed.value))))
    if (!reading.ok) return reading.faults[0]?.message ?? 'This cannot be.'
    if (!equal(reading.session, committed.value)) commit(label, reading.session)
    return null
  }

  /** Tries a change out on the screen without keeping it. */
  function preview(change: (session: Session) => Session) {
    if (committed.value) draft.value = change(committed.value)
  }

  function cancelPreview() {
    draft.value = null
    follow()
  }

  function keepPreview(label: string): string | null {
    const tried = draft.value
    if (!tried) return null
    const wrong = edit(label, () => tried)
    draft.value = null
    follow()
    return wrong
  }

  function step(by: 1 | -1) {
    cancelPreview()
    const revision = history.value[position.value + by]
    if (!revision) return
    cursor.value = revision.number
    write((row) => sessionRepository.moveTo(row, revision), revision.session)
  }

  /** After a conflict: what the other tab has, instead of this tab’s. */
  async function takeTheirs() {
    await queue
    const kept = key.value ? await sessionRepository.read(key.value) : null
    conflict.value = null
    if (kept) show(kept)
    else goneElsewhere.value = true
  }

  return {
    key,
    session,
    committed,
    evaluation,
    plan,
    undoLabel,
    redoLabel,
    savedAt,
    saving,
    trouble,
    conflict,
    goneElsewhere,
    open,
    openUnkept,
    edit,
    preview,
    keepPreview,
    cancelPreview,
    undo: () => step(-1),
    redo: () => step(1),
    takeTheirs,
    /** Resolves when everything committed so far is written or has failed to be. */
    settled: async () => {
      await queue
    },
  }
})
