import equal from 'fast-deep-equal'
import { computed, ref, shallowRef } from 'vue'
import type { Session } from '#core/session'
import { readEdited } from '#core/files'
import { share } from '#core/model'
import type { Opening, SessionStorage, SessionRow, Step } from '~/persistence'
import { ConflictError, GoneError, NewerDataError, describeStorageTrouble } from '~/persistence'

/** Steps kept, in memory and in the database alike: as far back as undo goes. */
const MOST_STEPS = 200

/** Sessions held in memory around the cursor; what is farther away is read when undo comes to it. */
const MOST_LOADED = 24

/** What an open session needs of where it is kept. */
export type KeptIn = Pick<SessionStorage, 'create' | 'read' | 'revision' | 'sync' | 'watch'>

/** What this device did by itself in a session that others change too: undo takes back just that. */
export interface OwnChanges {
  readonly undoLabel: string | null
  readonly redoLabel: string | null
  add: (label: string, before: Session, after: Session, gesture: string | null) => void
  endGesture: () => void
  /** @returns the session without the last own change, or with it again; why not, in words; `null` where there is none */
  undo: (current: Session) => OwnChange | null
  redo: (current: Session) => OwnChange | null
  /** What is dragged here, on top of what another device changed meanwhile. */
  rebase: (base: Session, mine: Session, theirs: Session) => Session
}
type OwnChange = { ok: true; session: Session; label: string } | { ok: false; why: string }

/** Why this tab's version could not be written where it was, and the session is to go on apart. */
export type Parting = 'changed' | 'deleted'

/**
 * One open session: its key, its row, its history and its writes. What comes late belongs to this object and to no other.
 *
 * The history in memory leads and the database follows it, so that undo does not wait and a full or blocked storage costs
 * nothing that is on the screen.
 */
export class OpenSession {
  readonly steps = shallowRef<Step[]>([])
  readonly cursor = ref(0)
  readonly committed = shallowRef<Session>() as { value: Session }
  readonly draft = shallowRef<Session | null>(null)
  /** What another device drags, as it moves. */
  readonly othersDraft = shallowRef<Session | null>(null)
  /** While other devices change the session too. */
  readonly own = shallowRef<OwnChanges | null>(null)

  readonly savedAt = ref<number | null>(null)
  readonly saving = ref(false)
  readonly trouble = ref<string | null>(null)
  /** What was found damaged when it was opened. */
  readonly damage = ref<string | null>(null)
  /** Another tab deleted it, or its storage was cleared, while this one shows it. */
  readonly gone = ref<'deleted' | 'absent' | null>(null)
  /** The number of revisions that the database does not have. */
  readonly unwritten = ref(0)

  readonly position = computed(() => this.steps.value.findIndex(({ number }) => number === this.cursor.value))
  readonly undoLabel = computed(() => {
    if (this.own.value) return this.ofOwn((own) => own.undoLabel)
    return (this.position.value > 0 ? this.steps.value[this.position.value]?.label : null) ?? null
  })
  readonly redoLabel = computed(() =>
    this.own.value ? this.ofOwn((own) => own.redoLabel) : (this.steps.value[this.position.value + 1]?.label ?? null),
  )
  /** Own changes are plain; each change of the session may be one of them. */
  private ofOwn = <T>(read: (own: OwnChanges) => T): T | null =>
    this.committed.value && this.own.value ? read(this.own.value) : null

  /** Called when this tab's version has to go on as a session of its own. */
  onParting: (why: Parting) => void = () => {}
  /** Called where a change cannot be undone, with the reason. */
  onNotUndone: (why: string) => void = () => {}
  /** Why nothing can be changed here, in words. */
  refuses: () => string | null = () => null
  /** Called with the newest state after each change of it. */
  onChange: (session: Session) => void = () => {}

  private row: SessionRow | null = null
  private readonly loaded = new Map<number, Session>()
  private readonly dirty = new Set<number>()
  private news: SessionRow | null = null
  private behind = false
  private writing: Promise<void> | null = null
  private stepping: Promise<void> = Promise.resolve()
  private gesture: string | null = null
  private stopWatching: (() => void) | null = null

  private constructor(
    readonly key: string,
    private readonly repository: KeptIn,
  ) {}

  static kept(repository: KeptIn, opening: Extract<Opening, { state: 'open' }>): OpenSession {
    const open = new OpenSession(opening.row.key, repository)
    open.show(opening)
    open.damage.value = opening.damage
    return open
  }

  /** A session that is to be kept with its first change, or when there is time for it: nothing of the storage is needed before. */
  static fresh(repository: KeptIn, key: string, session: Session, label: string) {
    const open = new OpenSession(key, repository)
    open.steps.value = [{ number: 0, label }]
    open.committed.value = session
    open.loaded.set(0, session)
    open.dirty.add(0)
    open.unwritten.value = 1
    return open
  }

  /** A session that no storage keeps yet; the reason stays on the screen, and it is tried again with the next change. */
  static unkept(repository: KeptIn, key: string, session: Session, label: string, reason: unknown) {
    const open = OpenSession.fresh(repository, key, session, label)
    open.trouble.value = describeStorageTrouble(reason)
    return open
  }

  /** The storage has a row of it. */
  get isKept(): boolean {
    return this.row !== null
  }

  /** How often its row was written, as far as this tab knows. */
  get writes(): number {
    return this.row?.writes ?? 0
  }

  /** Something of it is nowhere but in this tab. */
  get isUnkept(): boolean {
    return this.dirty.size > 0 || this.behind
  }

  private show({ row, session }: { row: SessionRow; session: Session }) {
    this.row = row
    this.steps.value = row.steps
    this.cursor.value = row.cursor
    this.savedAt.value = row.updatedAt
    this.loaded.clear()
    this.loaded.set(row.cursor, session)
    this.gesture = null
    this.committed.value = share(this.committed.value, session)
  }

  watch() {
    this.stopWatching ??= this.repository.watch(
      this.key,
      (row) => this.hear(row),
      (error) => {
        this.trouble.value = describeStorageTrouble(error)
      },
    )
  }

  /** No longer on the screen; what is being written is written to its end. */
  leave() {
    this.stopWatching?.()
    this.stopWatching = null
    this.draft.value = null
    this.gesture = null
  }

  private hear(row: SessionRow | null) {
    if (!this.row) return
    this.gone.value = row === null ? 'absent' : row.deletedAt > 0 ? 'deleted' : null
    if (row === null || row.deletedAt > 0) return
    this.news = row
    void this.follow()
  }

  private get busy() {
    return this.isUnkept || this.writing !== null || this.draft.value !== null
  }

  /** Shows what another tab committed, unless something of this tab is under way: then the next write settles it. */
  private async follow() {
    const { news } = this
    if (!news || !this.row || this.busy || news.writes <= this.row.writes) return
    const opening = await this.repository.read(this.key).catch((error: unknown) => {
      this.trouble.value = describeStorageTrouble(error)
      return null
    })
    // Something may have begun here while it was read.
    if (opening?.state === 'open' && !this.busy && opening.row.writes > this.row.writes) this.show(opening)
  }

  /**
   * Changes the session for good, if the result is a valid one.
   * @param gesture edits of one gesture – a key held down, a text being typed – are one step of undo
   * @returns what is wrong with the change, in words, and then nothing was changed; `null` where it was taken
   */
  edit(label: string, change: (session: Session) => Session, gesture: string | null = null): string | null {
    const refusal = this.refuses()
    if (refusal !== null) return refusal
    const reading = readEdited(this.committed.value, change(this.committed.value))
    if (!reading.ok) return reading.faults[0]?.message ?? 'This cannot be.'
    const next = share(this.committed.value, reading.session)
    if (next === this.committed.value) return null
    this.own.value?.add(label, this.committed.value, next, gesture)
    this.commit(label, next, gesture)
    return null
  }

  /** Takes in what another device changed, or what its change makes of one's own. @param next read already */
  takeIn(label: string, next: Session) {
    const [before, { draft }] = [this.committed.value, this]
    if (next === before) return
    this.commit(label, next, null)
    if (draft.value && this.own.value) draft.value = this.own.value.rebase(before, draft.value, next)
  }

  private commit(label: string, next: Session, gesture: string | null) {
    const goesOn = gesture !== null && gesture === this.gesture
    const at = goesOn ? this.cursor.value : this.cursor.value + 1
    const before = this.steps.value.slice(0, this.position.value + (goesOn ? 0 : 1))
    const origin = this.loaded.get(before.at(-1)?.number ?? -1)
    if (goesOn && equal(origin, next)) {
      // The gesture led back to where it began: there is nothing to undo.
      this.steps.value = before
      this.cursor.value = before.at(-1)?.number ?? 0
      this.gesture = null
      this.set(origin as Session)
      return
    }
    this.gesture = gesture
    this.steps.value = [...before, { number: at, label }].slice(-MOST_STEPS)
    this.cursor.value = at
    this.loaded.set(at, next)
    this.dirty.add(at)
    this.set(next)
  }

  /** Ends a gesture: the next edit is a step of its own. */
  endGesture() {
    this.gesture = null
    this.own.value?.endGesture()
  }

  /** Takes a gesture back that is still going on, as if it had not begun. */
  takeBackGesture(gesture: string) {
    const origin = this.loaded.get(this.steps.value[this.position.value - 1]?.number ?? -1)
    if (gesture === this.gesture && origin) this.edit('', () => origin, gesture)
  }

  private set(session: Session) {
    this.committed.value = session
    this.forget()
    this.behind = true
    this.flush()
    this.onChange(session)
  }

  /** Drops from memory what is no longer a step, and sessions far from the cursor that the database has. */
  private forget() {
    const numbers = new Set(this.steps.value.map(({ number }) => number))
    for (const number of this.dirty) if (!numbers.has(number)) this.dirty.delete(number)
    const far = [...this.loaded.keys()]
      .sort((a, b) => Math.abs(b - this.cursor.value) - Math.abs(a - this.cursor.value))
      .slice(0, Math.max(0, this.loaded.size - MOST_LOADED))
    for (const number of this.loaded.keys())
      if (!numbers.has(number) || (far.includes(number) && !this.dirty.has(number))) this.loaded.delete(number)
  }

  preview(change: (session: Session) => Session) {
    if (this.refuses() !== null) return
    this.draft.value = change(this.committed.value)
  }

  cancelPreview() {
    this.draft.value = null
    void this.follow()
  }

  keepPreview(label: string): string | null {
    const tried = this.draft.value
    if (!tried) return null
    const wrong = this.edit(label, () => tried)
    this.draft.value = null
    void this.follow()
    return wrong
  }

  /** Undo (−1) and redo (1). At once where the session is in memory; otherwise as soon as it is read, in their order. */
  step(by: 1 | -1) {
    this.cancelPreview()
    this.gesture = null
    if (this.own.value) return this.stepOwn(this.own.value, by)
    const target = this.steps.value[this.position.value + by]
    const session = target && this.loaded.get(target.number)
    if (target && session && !this.reading) this.moveTo(target, session)
    else if (target) {
      this.reading++
      this.stepping = this.stepping.then(() => this.stepOnDisk(by)).finally(() => this.reading--)
    }
  }
  private reading = 0

  private stepOwn(own: OwnChanges, by: 1 | -1) {
    const change = by < 0 ? own.undo(this.committed.value) : own.redo(this.committed.value)
    if (change?.ok) this.commit(`${by < 0 ? 'Undo' : 'Redo'}: ${change.label}`, change.session, null)
    else if (change) this.onNotUndone(change.why)
  }

  private moveTo({ number }: Step, session: Session) {
    this.cursor.value = number
    this.loaded.set(number, session)
    this.set(share(this.committed.value, session))
  }

  private async stepOnDisk(by: 1 | -1) {
    const target = this.steps.value[this.position.value + by]
    if (!target) return
    try {
      const session = this.loaded.get(target.number) ?? (await this.repository.revision(this.key, target.number))
      if (session) return this.moveTo(target, session)
      this.steps.value = this.steps.value.filter((each) => each !== target)
      this.damage.value = `The step “${target.label}” is damaged and cannot be shown again; it was removed from the list.`
    } catch (error) {
      this.trouble.value = describeStorageTrouble(error)
    }
  }

  /** Tries again to write what could not be written. */
  retry(): Promise<void> {
    this.behind = true
    this.flush()
    return this.settled()
  }

  /** Resolves when everything committed so far is written or has failed to be. */
  async settled(): Promise<void> {
    await this.stepping
    while (this.writing) await this.writing
  }

  private flush() {
    this.unwritten.value = this.dirty.size
    this.writing ??= this.write().finally(() => {
      this.writing = null
      this.saving.value = false
      void this.follow()
    })
  }

  /** One write at a time; what changes meanwhile goes with the next one, together. */
  private async write() {
    while (this.behind) {
      this.behind = false
      this.saving.value = true
      try {
        const row = this.row ?? (await this.begin())
        const sent = new Map([...this.dirty].map((number) => [number, this.loaded.get(number) as Session]))
        this.row = await this.repository.sync(row, this.state(sent))
        for (const [number, session] of sent) if (this.loaded.get(number) === session) this.dirty.delete(number)
        this.savedAt.value = this.row.updatedAt
        this.trouble.value = null
        this.unwritten.value = this.dirty.size
      } catch (error) {
        this.behind = true
        return this.notWritten(error)
      }
    }
  }

  /** The first write of a session that the database does not have: all that is in memory is to follow. */
  private async begin(): Promise<SessionRow> {
    const label = this.steps.value[this.position.value]?.label ?? 'Opened'
    this.row = await this.repository.create(this.key, this.committed.value, label)
    for (const { number } of this.steps.value) if (this.loaded.has(number)) this.dirty.add(number)
    return this.row
  }

  private notWritten(error: unknown) {
    if (error instanceof ConflictError || error instanceof NewerDataError) this.onParting('changed')
    else if (error instanceof GoneError) {
      this.gone.value = error.how
      if (error.how === 'deleted') this.onParting('deleted')
    } else this.trouble.value = describeStorageTrouble(error)
  }

  /** What this tab had goes on under another key: there is nothing left to be written here. */
  handOver() {
    this.dirty.clear()
    this.behind = false
    this.unwritten.value = 0
    this.leave()
  }

  private state(sent: ReadonlyMap<number, Session>) {
    const steps = this.steps.value
    return {
      name: this.committed.value.name,
      steps,
      cursor: this.cursor.value,
      unwritten: steps.flatMap((step) => {
        const session = sent.get(step.number)
        return session ? [{ ...step, session }] : []
      }),
    }
  }

  /** After its storage was cleared under the open page: it is kept again, as far back as this tab remembers. */
  async keepAgain(): Promise<void> {
    this.row = null
    this.gone.value = null
    this.steps.value = this.steps.value.filter(({ number }) => this.loaded.has(number))
    await this.retry()
  }

  /** Another tab deleted it and it was restored: its row counts on from there. */
  async restored(): Promise<void> {
    const opening = await this.repository.read(this.key)
    this.gone.value = null
    if (opening.state === 'open' && this.row) this.row = { ...this.row, writes: opening.row.writes }
    if (this.isUnkept) await this.retry()
  }
}
