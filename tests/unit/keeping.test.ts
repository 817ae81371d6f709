import 'fake-indexeddb/auto'
import Dexie from 'dexie'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Gear, Microphone } from '#core/gear'
import type { Session } from '#core/session'
import { SESSION_VERSION } from '#core/session'
import { share } from '#core/model'
import { blankGear, merge } from '#core/edits'
import { writeSession } from '#core/files'
import { dbSpl } from '#core/units'
import { RemetraDatabase } from '~/persistence/database'
import { Memos } from '~/persistence/memo'
import type { Opening } from '~/persistence/kept-session'
import type { HistoryState } from '~/persistence/session-repository'
import { ConflictError } from '~/persistence/conflict'
import { SessionRepository } from '~/persistence/session-repository'
import { ShelfRepository } from '~/persistence/shelf-repository'
import { describeStorageTrouble } from '~/persistence/storage-trouble'
import { sessionRepository } from '~/persistence'
import { inGesture } from '~/stores/gesture'
import { useSessionStore } from '~/stores/session'
import { example1, valid } from '../support/sessions'

const session = valid(example1())
const louder =
  (level: number) =>
  (each: Session): Session => ({ ...each, room: { ambient: dbSpl(level) } })
let keys = 0
const key = () => `k${keys++}`

describe('the repository', () => {
  let now = 1_000_000
  const database = new RemetraDatabase('test')
  const repository = new SessionRepository(database, () => now)
  /** Where a history of that many steps stands; each step's room is as loud as its number over 30. */
  const history = (numbers: readonly number[], cursor = numbers.at(-1) ?? 0, unwritten = numbers): HistoryState => ({
    name: session.name,
    steps: numbers.map((number) => ({ number, label: `change ${number}` })),
    cursor,
    unwritten: unwritten.map((number) => ({
      number,
      label: `change ${number}`,
      session: louder(30 + number)(session),
    })),
  })
  const upTo = (n: number) => Array.from({ length: n + 1 }, (_, i) => i)
  const ambientOf = (opening: Opening) => (opening.state === 'open' ? opening.session.room.ambient : opening.state)
  const numbersOf = async (k: string) =>
    (await database.revisions.where('key').equals(k).toArray()).map(({ number }) => number)

  it('keeps every committed change and reads back where it stood', async () => {
    const k = key()
    const first = await repository.create(k, session, 'Opened')
    await repository.sync(first, history([0, 1], 1, [1]))
    const kept = await repository.read(k)
    expect(kept).toMatchObject({ state: 'open', damage: null, row: { cursor: 1, writes: 2 } })
    expect(ambientOf(kept)).toBe(31)
    expect((await repository.revision(k, 0))?.room.ambient).toBe(28)
  })
  it('refuses to write over another tab’s change, and writes nothing', async () => {
    const k = key()
    const both = await repository.create(k, session, 'Opened')
    await repository.sync(both, history([0, 1], 1, [1]))
    await expect(repository.sync(both, history([0, 1, 2], 2, [2]))).rejects.toBeInstanceOf(ConflictError)
    expect(await numbersOf(k)).toEqual([0, 1])
  })
  it('refuses to write what is deleted or gone, each by its name', async () => {
    const k = key()
    const row = await repository.create(k, session, 'Opened')
    await repository.remove(k, 1)
    await expect(repository.sync(row, history([0, 1]))).rejects.toMatchObject({ how: 'deleted' })
    await repository.erase([k])
    await expect(repository.sync(row, history([0, 1]))).rejects.toMatchObject({ how: 'absent' })
  })
  it('drops what is no longer part of the history: above it and below it', async () => {
    const k = key()
    let row = await repository.create(k, session, 'Opened')
    row = await repository.sync(row, history(upTo(5)))
    row = await repository.sync(row, history([2, 3], 3, [3]))
    expect(await numbersOf(k)).toEqual([2, 3])
    expect(row.steps.map(({ number }) => number)).toEqual([2, 3])
  })
  it('never leaves a cursor without its revision: such a write is refused whole', async () => {
    const k = key()
    const row = await repository.create(k, session, 'Opened')
    await expect(repository.sync(row, history([0, 1, 2], 2, [1]))).rejects.toThrow('would be lost')
    expect(await numbersOf(k)).toEqual([0])
    expect((await repository.read(k)).state).toBe('open')
  })
  it('a damaged revision: the nearest good one is opened, and it is said', async () => {
    const k = key()
    await repository.sync(await repository.create(k, session, 'Opened'), history(upTo(4)))
    await database.revisions.put({ key: k, number: 4, label: 'x', session: { torn: true } as never })
    await database.revisions.delete([k, 3])
    const kept = await repository.read(k)
    expect(ambientOf(kept)).toBe(32)
    expect(kept).toMatchObject({ damage: expect.stringContaining('nearest'), row: { cursor: 2 } })
  })
  it('a damaged row: its steps are found again from the revisions that are there', async () => {
    const k = key()
    await repository.sync(await repository.create(k, session, 'Opened'), history(upTo(3)))
    await database.sessions.put({ key: k, name: 7, cursor: 'last', writes: null } as never)
    const kept = await repository.read(k)
    expect(ambientOf(kept)).toBe(33)
    expect(kept.state === 'open' && kept.row.steps.map(({ number }) => number)).toEqual([0, 1, 2, 3])
    expect(kept).toMatchObject({ damage: expect.stringContaining('can no longer be read') })
    expect((await repository.list()).find((row) => row.key === k)?.name).toBe('Session')
  })
  it('where nothing can be read, everything that is there is handed out raw', async () => {
    const k = key()
    await repository.create(k, session, 'Opened')
    await database.revisions.put({ key: k, number: 0, label: 'Opened', session: 'torn' as never })
    expect(await repository.read(k)).toMatchObject({
      state: 'unreadable',
      raw: { session: { key: k }, revisions: [{ session: 'torn' }] },
    })
  })
  it('a deleted session is gone from view, can be restored, and is dropped after 30 days of use', async () => {
    const k = key()
    await repository.create(k, session, 'Opened')
    await repository.remove(k, 5)
    expect(await repository.read(k)).toMatchObject({ state: 'deleted', name: session.name })
    await repository.restore(k)
    expect((await repository.read(k)).state).toBe('open')
    await repository.remove(k, 5)
    // A clock that is years ahead purges nothing: only days of use count.
    now += 5 * 365 * 24 * 3600 * 1000
    expect(await repository.purge(34)).not.toContain(k)
    expect(await repository.purge(35)).toContain(k)
    expect((await repository.read(k)).state).toBe('absent')
  })
  it('a day of use counts once, whatever the clock says', async () => {
    const memos = new Memos(database)
    const first = await memos.dayOfUse('Mon')
    expect(await memos.dayOfUse('Mon')).toBe(first)
    expect(await memos.dayOfUse('Tue')).toBe(first + 1)
  })
  it('what an earlier version kept is brought up to date when it is opened, and stays readable', async () => {
    const plugin = { id: 'comp', kind: 'processor', name: 'Plug-in', domain: 'digital', blocks: [] }
    const old = {
      ...example1(),
      gear: [...(example1().gear as object[]), { ...plugin, specs: { inputImpedance: 600, outputImpedance: 600 } }],
    }
    const before = new Dexie('earlier')
    before.version(2).stores({ sessions: 'key', revisions: '[key+number], key', memos: 'name', shelf: 'id' })
    const row = { key: 'k', name: 'Old', updatedAt: 1, cursor: 0, writes: 1, deletedAt: 0 }
    await before.table('sessions').add(row)
    await before.table('revisions').add({ key: 'k', number: 0, label: 'Opened', session: old })
    await before.table('shelf').add({ id: 'comp', item: old.gear.at(-1), updatedAt: 1, deletedAt: 0 })
    before.close()
    const database = new RemetraDatabase('earlier')
    const opening = await new SessionRepository(database).read('k')
    expect(opening).toMatchObject({ state: 'open', damage: null, row: { steps: [{ number: 0, label: 'Opened' }] } })
    const kept = opening.state === 'open' ? opening.session : null
    expect(kept?.version).toBe(SESSION_VERSION)
    expect(JSON.stringify(kept)).not.toContain('inputImpedance":600')
    expect(() => writeSession(kept as Session)).not.toThrow()
    const [item] = (await new ShelfRepository(database).list()).rows
    expect(item?.item).toMatchObject({ id: 'comp', kind: 'processor', specs: {} })
  })
  it('names the trouble: full, blocked', () => {
    expect(describeStorageTrouble({ name: 'AbortError', inner: { name: 'QuotaExceededError' } })).toContain('full')
    expect(describeStorageTrouble(new Error('no'))).toContain('blocked')
  })
})

describe('the open session', () => {
  beforeEach(() => setActivePinia(createPinia()))

  async function opened(first = session) {
    const k = key()
    await sessionRepository.create(k, first, 'Opened')
    const store = useSessionStore()
    await store.show(k)
    return { k, store }
  }
  /** The same session in another tab. */
  async function otherTab(k: string) {
    setActivePinia(createPinia())
    const store = useSessionStore()
    await store.show(k)
    return store
  }
  const settle = () => new Promise((resolve) => setTimeout(resolve, 60))
  const keptAmbient = async (k: string) => {
    const kept = await sessionRepository.read(k)
    return kept.state === 'open' ? kept.session.room.ambient : kept.state
  }
  /** Writes fail, or wait, until the returned function is called. */
  function disturbed(sync: typeof sessionRepository.sync): () => void {
    const own = sessionRepository.sync
    sessionRepository.sync = sync
    return () => {
      sessionRepository.sync = own
    }
  }
  const full = () => Promise.reject(new DOMException('full', 'QuotaExceededError'))

  it('undo and redo survive a reload', async () => {
    const { k, store } = await opened()
    store.edit('Louder', louder(40))
    store.edit('Louder still', louder(50))
    store.undo()
    await store.settled()
    const again = await otherTab(k)
    expect(again.session?.room.ambient).toBe(40)
    expect([again.undoLabel, again.redoLabel]).toEqual(['Louder', 'Louder still'])
    again.redo()
    again.undo()
    again.undo()
    await again.settled()
    expect(again.session?.room.ambient).toBe(28)
    expect(again.undoLabel).toBeNull()
    expect(await keptAmbient(k)).toBe(28)
  })
  it('undo back past what memory holds and past the limit of 200 steps; then it opens where it stood', async () => {
    const { k, store } = await opened()
    for (let i = 1; i <= 230; i++) store.edit(`To ${i}`, louder(20 + (i % 100)))
    await store.settled()
    for (let i = 0; i < 260; i++) store.undo()
    await store.settled()
    // 200 steps are kept: the 31st to the 230th; the oldest cannot be undone.
    expect(store.session?.room.ambient).toBe(20 + 31)
    expect([store.undoLabel, store.redoLabel]).toEqual([null, 'To 32'])
    const again = await otherTab(k)
    expect(again.session?.room.ambient).toBe(51)
    again.redo()
    await again.settled()
    expect(again.session?.room.ambient).toBe(52)
    expect(await keptAmbient(k)).toBe(52)
  })
  it('refuses an invalid change in words and keeps the last good value', async () => {
    const { store } = await opened()
    expect(store.edit('Too loud', louder(900))).toContain('at most 130')
    expect(store.session?.room.ambient).toBe(28)
    expect(store.undoLabel).toBeNull()
  })
  it('a preview is shown and evaluated but not kept; cancelling gives the old one back', async () => {
    const { k, store } = await opened()
    const noise = store.evaluation?.strips[0]?.points[2]?.noise
    store.preview(louder(60))
    expect(store.session?.room.ambient).toBe(60)
    expect(store.evaluation?.strips[0]?.points[2]?.noise).not.toBe(noise)
    store.cancelPreview()
    expect(store.session?.room.ambient).toBe(28)
    await store.settled()
    expect(await keptAmbient(k)).toBe(28)
  })
  it('a change that changes nothing makes no step to undo', async () => {
    const { store } = await opened()
    store.edit('Nothing', (each) => ({ ...each }))
    expect(store.undoLabel).toBeNull()
  })
  it('the edits of one gesture are one step; led back or taken back, they are none', async () => {
    const { k, store } = await opened()
    for (let i = 30; i < 60; i++) inGesture('held', () => store.edit('Held', louder(i)))
    await store.settled()
    expect(await keptAmbient(k)).toBe(59)
    store.undo()
    expect(store.session?.room.ambient).toBe(28)
    expect(store.undoLabel).toBeNull()
    inGesture('held', () => store.edit('Held', louder(33)))
    inGesture('held', () => store.edit('Held', louder(28)))
    expect(store.undoLabel).toBeNull()
    inGesture('typed', () => store.edit('Typed', louder(44)))
    store.takeBackGesture('typed')
    expect([store.session?.room.ambient, store.undoLabel]).toEqual([28, null])
    store.edit('Another', louder(45))
    store.takeBackGesture('typed')
    expect(store.session?.room.ambient).toBe(45)
    await store.settled()
    expect(await keptAmbient(k)).toBe(45)
  })
  it('parts that did not change stay the same objects', async () => {
    const { store } = await opened()
    const strips = store.session?.strips
    store.edit('Louder', louder(40))
    expect(store.session?.strips).toBe(strips)
  })
  it('follows what another tab commits', async () => {
    const { k, store } = await opened()
    const other = await otherTab(k)
    other.edit('Elsewhere', louder(44))
    await other.settled()
    await vi.waitFor(() => expect(store.session?.room.ambient).toBe(44), 10_000)
    expect(store.undoLabel).toBe('Elsewhere')
  })
  it('while this tab writes, what another tab commits is not shown over it', async () => {
    const { k, store } = await opened()
    let release = () => {}
    const held = new Promise<void>((resolve) => (release = resolve))
    const own = sessionRepository.sync.bind(sessionRepository)
    const undisturbed = disturbed(async (...wanted) => {
      await held
      return own(...wanted)
    })
    store.edit('Here', louder(60))
    undisturbed()
    const other = await otherTab(k)
    other.edit('Elsewhere', louder(44))
    await other.settled()
    await settle()
    expect(store.session?.room.ambient).toBe(60)
    release()
    await vi.waitFor(() => expect(store.parted).toMatchObject({ why: 'changed' }), 10_000)
    expect(store.session?.room.ambient).toBe(60)
  })
  it('a drag that begins while another tab’s change is read goes on', async () => {
    const { k, store } = await opened()
    const other = await otherTab(k)
    let release = () => {}
    const held = new Promise<void>((resolve) => (release = resolve))
    const own = sessionRepository.read.bind(sessionRepository)
    let asked = false
    sessionRepository.read = async (...wanted) => {
      asked = true
      await held
      return own(...wanted)
    }
    other.edit('Elsewhere', louder(44))
    await vi.waitFor(() => expect(asked).toBe(true), 10_000)
    store.preview(louder(60))
    sessionRepository.read = own
    release()
    await settle()
    expect(store.session?.room.ambient).toBe(60)
    store.keepPreview('Here')
    await vi.waitFor(() => expect(store.parted).toMatchObject({ why: 'changed' }), 10_000)
    expect(await keptAmbient(k)).toBe(44)
  })
  it('two tabs at once: nothing is overwritten, both versions are in the database before anybody is asked', async () => {
    const { k, store } = await opened()
    const other = await otherTab(k)
    store.preview(louder(60)) // a drag under way holds this tab back from following
    other.edit('Elsewhere', louder(44))
    await other.settled()
    await settle()
    store.keepPreview('Here')
    await store.settled()
    await vi.waitFor(() => expect(store.parted).toMatchObject({ why: 'changed', from: k }), 10_000)
    expect(store.key).not.toBe(k)
    expect(await keptAmbient(k)).toBe(44)
    expect(await keptAmbient(store.key ?? '')).toBe(60)
    expect(store.session?.name).toBe(`${session.name} (copy)`)
    expect(store.isUnkept()).toBe(false)
  })
  it('changed here, deleted there: what was changed is kept apart and the deletion is called by its name', async () => {
    const { k, store } = await opened()
    store.preview(louder(60))
    await sessionRepository.remove(k, 1)
    await vi.waitFor(() => expect(store.gone).toBe('deleted'), 10_000)
    store.keepPreview('Here')
    await store.settled()
    await vi.waitFor(() => expect(store.parted).toMatchObject({ why: 'deleted', from: k }), 10_000)
    expect(await keptAmbient(store.key ?? '')).toBe(60)
    await sessionRepository.restore(k)
    expect(await keptAmbient(k)).toBe(28)
  })
  it('a write that ends after another session was opened belongs to its own', async () => {
    const { k: a, store } = await opened()
    const b = key()
    await sessionRepository.create(b, { ...session, name: 'Second' }, 'Opened')
    const own = sessionRepository.sync.bind(sessionRepository)
    const undisturbed = disturbed(async (...args) => {
      await new Promise((resolve) => setTimeout(resolve, 40))
      return own(...args)
    })
    try {
      for (let round = 0; round < 5; round++) {
        await store.show(a)
        store.edit('Louder', louder(40 + round))
        store.edit('Quieter', louder(20))
        store.undo()
        const opening = store.show(b)
        // While the other one is being opened nothing can be changed, by key or by gesture.
        expect(store.edit('Late', louder(99))).toContain('being opened')
        store.undo()
        await opening
        store.edit('Other', louder(70 + round))
        await store.settled()
        expect([await keptAmbient(a), await keptAmbient(b)]).toEqual([40 + round, 70 + round])
        expect(store.session?.name).toBe('Second')
      }
    } finally {
      undisturbed()
    }
    const names = (await sessionRepository.list()).filter((row) => [a, b].includes(row.key)).map((row) => row.name)
    expect(names.sort()).toEqual([session.name, 'Second'].sort())
  })
  it('of two sessions asked for at once the last one is shown', async () => {
    const { k: a, store } = await opened()
    const keys = [key(), key()]
    for (const [i, k] of keys.entries()) await sessionRepository.create(k, { ...session, name: `Asked ${i}` }, 'Opened')
    await Promise.all(keys.map((k) => store.show(k)))
    expect(store.key).toBe(keys[1])
    expect(await keptAmbient(a)).toBe(28)
  })
  it('a storage that refuses is told; undone onto what was never written, everything unwritten follows later', async () => {
    const { k, store } = await opened()
    const undisturbed = disturbed(full)
    store.edit('Louder', louder(40))
    store.edit('Louder still', louder(41))
    store.undo()
    await store.settled()
    expect(store.trouble).toContain('full')
    expect(store.isUnkept()).toBe(true)
    expect(store.session?.room.ambient).toBe(40)
    undisturbed()
    await store.retry()
    expect([store.trouble, store.isUnkept()]).toEqual([null, false])
    const again = await otherTab(k)
    expect(again.session?.room.ambient).toBe(40)
    again.redo()
    await again.settled()
    expect(again.session?.room.ambient).toBe(41)
    expect(await keptAmbient(k)).toBe(41)
  })
  it('left with something unkept, it is there as it was left, and it is said', async () => {
    const { k, store } = await opened()
    const b = key()
    await sessionRepository.create(b, session, 'Opened')
    const undisturbed = disturbed(full)
    store.edit('Louder', louder(40))
    await store.show(b)
    await vi.waitFor(() => expect(store.unkept.map((each) => each.key)).toEqual([k]), 10_000)
    undisturbed()
    await store.show(k)
    expect(store.session?.room.ambient).toBe(40)
    expect(store.unkept).toEqual([])
    await store.retry()
    expect(await keptAmbient(k)).toBe(40)
  })
  it('a new session that no storage takes is open all the same, and kept as soon as it can be', async () => {
    const store = useSessionStore()
    const create = sessionRepository.create
    sessionRepository.create = full
    const k = await store.start(session, 'Started')
    store.edit('Louder', louder(40))
    await store.settled()
    expect([store.session?.room.ambient, store.isUnkept()]).toEqual([40, true])
    sessionRepository.create = create
    await store.retry()
    expect(await keptAmbient(k)).toBe(40)
    const again = await otherTab(k)
    again.undo()
    await again.settled()
    expect(again.session?.room.ambient).toBe(28)
  })
  it('a session deleted elsewhere stays on the screen, says so, and is restored with what follows', async () => {
    const { k, store } = await opened()
    await settle()
    await sessionRepository.remove(k, 1)
    await vi.waitFor(() => expect(store.gone).toBe('deleted'), 10_000)
    expect(store.session?.room.ambient).toBe(28)
    await sessionRepository.restore(k)
    await store.restored()
    store.edit('Louder', louder(40))
    await store.settled()
    expect([store.gone, await keptAmbient(k)]).toEqual([null, 40])
  })
  it('storage cleared under the open page is said, and it can be kept again', async () => {
    const { k, store } = await opened()
    store.edit('Louder', louder(40))
    await store.settled()
    await sessionRepository.erase([k])
    await vi.waitFor(() => expect(store.gone).toBe('absent'), 10_000)
    store.edit('Louder still', louder(41))
    await store.settled()
    expect(store.isUnkept()).toBe(true)
    await store.keepAgain()
    expect([store.gone, await keptAmbient(k)]).toEqual([null, 41])
    store.undo()
    await store.settled()
    expect(await keptAmbient(k)).toBe(40)
  })
  it('a step that is damaged is taken out of the list of undo and named', async () => {
    const { k, store } = await opened()
    for (const level of [40, 41, 42]) store.edit(`To ${level}`, louder(level))
    await store.settled()
    const again = await otherTab(k)
    await new RemetraDatabase().revisions.put({ key: k, number: 2, label: '', session: null as never })
    again.undo()
    again.undo()
    await again.settled()
    expect(again.session?.room.ambient).toBe(40)
    expect(again.damage).toContain('To 41')
  })
  it('random edits, undos and failing writes: what is opened again is what was shown last', async () => {
    let seed = 20261126
    const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647
    const own = sessionRepository.sync.bind(sessionRepository)
    for (let trial = 0; trial < 12; trial++) {
      setActivePinia(createPinia())
      const { k, store } = await opened()
      const undisturbed = disturbed((...args) => (random() < 0.3 ? full() : own(...args)))
      try {
        for (let i = 0; i < 60; i++) {
          const draw = random()
          if (draw < 0.6) store.edit('Any', louder(Math.floor(random() * 100)))
          else if (draw < 0.8) store.undo()
          else store.redo()
          if (random() < 0.1) await store.settled()
        }
      } finally {
        await store.settled()
        undisturbed()
      }
      await store.retry()
      expect(await keptAmbient(k), `seed 20261126, trial ${trial}`).toBe(store.session?.room.ambient)
    }
  })
})

describe('the shelf', () => {
  const item = (id: string, name = id): Gear => blankGear('microphone', id, name)
  const repository = new ShelfRepository(new RemetraDatabase('shelf-test'))
  const stored = async (id: string) => (await repository.list()).rows.find((row) => row.id === id)

  it('two tabs, two fields: both changes stand, twenty times over', async () => {
    await repository.add([item('mic')])
    for (let i = 0; i < 20; i++) {
      const shown = (await stored('mic'))?.item as Microphone
      const [mine, theirs] = [
        { ...shown, origin: `desk ${i}` },
        { ...shown, specs: { ...shown.specs, selfNoise: i } },
      ] as Microphone[]
      const answers = await Promise.all([
        repository.change(shown, mine as Gear),
        repository.change(shown, theirs as Gear),
      ])
      expect(answers).toEqual([null, null])
      expect((await stored('mic'))?.item).toMatchObject({ origin: `desk ${i}`, specs: { selfNoise: i } })
    }
    expect((await stored('mic'))?.writes).toBe(41)
  })
  it('two tabs, one field: the second is told, the first stands', async () => {
    await repository.add([item('one')])
    const shown = (await stored('one'))?.item as Gear
    expect(await repository.change(shown, { ...shown, name: 'First' })).toBeNull()
    expect(await repository.change(shown, { ...shown, name: 'Second' })).toContain('Another tab')
    expect((await stored('one'))?.item.name).toBe('First')
  })
  it('a removed item does not come back by an edit of another tab', async () => {
    await repository.add([item('gone')])
    const shown = (await stored('gone'))?.item as Gear
    await repository.remove('gone')
    expect(await repository.change(shown, { ...shown, name: 'Back' })).toContain('removed')
    expect((await stored('gone'))?.deletedAt).toBeGreaterThan(0)
  })
  it('an id in use, also by a removed item or twice in one batch, gives way; nothing is replaced', async () => {
    await repository.add([item('same', 'First')])
    await repository.remove('same')
    expect(await repository.add([item('same', 'Second'), item('same', 'Third')])).toEqual(['same-2', 'same-3'])
    expect((await stored('same'))?.item.name).toBe('First')
    expect([(await stored('same-2'))?.item.name, (await stored('same-3'))?.item.name]).toEqual(['Second', 'Third'])
  })
  it('an item that cannot be read is named, left as found, and not shown', async () => {
    const database = new RemetraDatabase('shelf-damaged')
    const shelf = new ShelfRepository(database)
    await shelf.add([item('good')])
    await database.shelf.put({
      id: 'bad',
      item: { kind: 'teapot' } as never,
      updatedAt: 0,
      writes: 1,
      deletedAt: 0,
      version: 3,
    })
    const found = await shelf.list()
    expect([found.rows.map(({ id }) => id), found.aside.map(({ name, why }) => [name, why])]).toEqual([
      ['good'],
      [['Item bad', 'damaged']],
    ])
    expect(await database.shelf.count()).toBe(2)
  })
})

describe('merging and sharing', () => {
  it('takes what only one side changed, deep inside and in lists of the same length', () => {
    const base = { a: 1, list: [{ x: 1 }, { x: 2 }], gone: true }
    const result = merge<object>(base, { ...base, a: 2 }, { a: 1, list: [{ x: 1 }, { x: 9 }] })
    expect(result).toEqual({ ok: true, merged: { a: 2, list: [{ x: 1 }, { x: 9 }] } })
  })
  it('names the place that both changed', () => {
    expect(merge({ a: { b: 1 } }, { a: { b: 2 } }, { a: { b: 3 } })).toEqual({ ok: false, path: 'a.b' })
    expect(merge({ a: [1] }, { a: [1, 2] }, { a: [3] })).toEqual({ ok: false, path: 'a' })
  })
  it('shares what is equal and nothing else', () => {
    const before = { a: { x: [1, 2] }, b: { y: 1 } }
    const after = share(before, { a: { x: [1, 2] }, b: { y: 2 } })
    expect(after).toEqual({ a: { x: [1, 2] }, b: { y: 2 } })
    expect(after.a).toBe(before.a)
    expect(share(before, structuredClone(before))).toBe(before)
    expect(share({ a: 1, b: 2 }, { a: 1 } as object)).toEqual({ a: 1 })
    expect(share({ a: undefined } as object, { b: undefined } as object)).toEqual({ b: undefined })
  })
})
