import 'fake-indexeddb/auto'
import Dexie from 'dexie'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Session } from '#core/session'
import { writeSession } from '#core/session'
import { dbSpl } from '#core/units'
import { RemetraDatabase } from '~/persistence/database'
import { ConflictError, SessionRepository } from '~/persistence/session-repository'
import { ShelfRepository } from '~/persistence/shelf-repository'
import { describeStorageTrouble } from '~/persistence/storage-trouble'
import { sessionRepository } from '~/persistence'
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
  const repository = new SessionRepository(new RemetraDatabase('test'), () => now)
  const revision = (of: string, number: number, each = session) => ({
    key: of,
    number,
    label: `change ${number}`,
    session: each,
  })

  it('keeps every committed change and reads them back in order', async () => {
    const k = key()
    const first = await repository.create(k, session, 'Opened')
    await repository.commit(first, revision(k, 1, louder(30)(session)))
    const kept = await repository.read(k)
    expect(kept?.row.cursor).toBe(1)
    expect(kept?.revisions.map((each) => each.session.room.ambient)).toEqual([28, 30])
  })
  it('refuses to write over another tab’s change, and writes nothing', async () => {
    const k = key()
    const both = await repository.create(k, session, 'Opened')
    await repository.commit(both, revision(k, 1, louder(30)(session)))
    await expect(repository.commit(both, revision(k, 1, louder(50)(session)))).rejects.toBeInstanceOf(ConflictError)
    expect((await repository.read(k))?.revisions.map((each) => each.session.room.ambient)).toEqual([28, 30])
  })
  it('a change after an undo drops what could have been redone', async () => {
    const k = key()
    let row = await repository.create(k, session, 'Opened')
    row = await repository.commit(row, revision(k, 1))
    row = await repository.commit(row, revision(k, 2))
    row = await repository.moveTo(row, revision(k, 0))
    await repository.commit(row, revision(k, 1, louder(40)(session)))
    expect((await repository.read(k))?.revisions.map((each) => each.number)).toEqual([0, 1])
  })
  it('keeps the last 200 revisions', async () => {
    const k = key()
    let row = await repository.create(k, session, 'Opened')
    for (let i = 1; i <= 205; i++) row = await repository.commit(row, revision(k, i))
    const numbers = (await repository.read(k))?.revisions.map((each) => each.number)
    expect(numbers).toHaveLength(200)
    expect(numbers?.at(-1)).toBe(205)
  })
  it('a deleted session is gone from view, can be restored, and is dropped after 30 days', async () => {
    const k = key()
    await repository.create(k, session, 'Opened')
    await repository.remove(k)
    expect(await repository.read(k)).toBeNull()
    await repository.restore(k)
    expect(await repository.read(k)).not.toBeNull()
    await repository.remove(k)
    now += 31 * 24 * 3600 * 1000
    await repository.purge()
    expect((await repository.list()).map((each) => each.key)).not.toContain(k)
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
    const kept = (await new SessionRepository(database).read('k'))?.revisions[0]?.session
    expect(kept?.version).toBe(2)
    expect(JSON.stringify(kept)).not.toContain('inputImpedance":600')
    expect(() => writeSession(kept as Session)).not.toThrow()
    const [item] = await new ShelfRepository(database).list()
    expect(item?.item).toMatchObject({ id: 'comp', kind: 'processor', specs: {} })
  })
  it('names the trouble: full, blocked', () => {
    expect(describeStorageTrouble({ name: 'AbortError', inner: { name: 'QuotaExceededError' } })).toContain('full')
    expect(describeStorageTrouble(new Error('no'))).toContain('blocked')
  })
})

describe('the open session', () => {
  beforeEach(() => setActivePinia(createPinia()))

  async function opened() {
    const k = key()
    await sessionRepository.create(k, session, 'Opened')
    const store = useSessionStore()
    await store.open(k)
    return { k, store }
  }
  /** The same session in another tab. */
  async function otherTab(k: string) {
    setActivePinia(createPinia())
    const store = useSessionStore()
    await store.open(k)
    return store
  }
  const settle = () => new Promise((resolve) => setTimeout(resolve, 60))

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
    expect(again.session?.room.ambient).toBe(28)
    expect(again.undoLabel).toBeNull()
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
    expect((await sessionRepository.read(k))?.revisions).toHaveLength(1)
  })
  it('a change that changes nothing makes no step to undo', async () => {
    const { store } = await opened()
    store.edit('Nothing', (each) => ({ ...each }))
    expect(store.undoLabel).toBeNull()
  })
  it('follows what another tab commits', async () => {
    const { k, store } = await opened()
    const other = await otherTab(k)
    other.edit('Elsewhere', louder(44))
    await other.settled()
    await settle()
    expect(store.session?.room.ambient).toBe(44)
  })
  it('two tabs at once: the second is told, nothing is overwritten, and its work can go on as a copy', async () => {
    const { k, store } = await opened()
    const other = await otherTab(k)
    store.preview(louder(60)) // a drag under way holds this tab back from following
    other.edit('Elsewhere', louder(44))
    await other.settled()
    await settle()
    store.keepPreview('Here')
    await store.settled()
    expect(store.conflict?.room.ambient).toBe(60)
    expect((await sessionRepository.read(k))?.revisions.at(-1)?.session.room.ambient).toBe(44)
    await store.takeTheirs()
    expect(store.session?.room.ambient).toBe(44)
    expect(store.conflict).toBeNull()
  })
  it('a storage that refuses is told, and the session stays on the screen', async () => {
    const { store } = await opened()
    const commit = sessionRepository.commit
    sessionRepository.commit = () => Promise.reject(new DOMException('full', 'QuotaExceededError'))
    try {
      store.edit('Louder', louder(40))
      await store.settled()
    } finally {
      sessionRepository.commit = commit
    }
    expect(store.trouble).toContain('full')
    expect(store.session?.room.ambient).toBe(40)
    store.edit('Louder still', louder(41))
    await store.settled()
    expect(store.trouble).toBeNull()
  })
  it('a session deleted elsewhere stays on the screen and says so', async () => {
    const { k, store } = await opened()
    await settle()
    await sessionRepository.remove(k)
    await settle()
    expect(store.goneElsewhere).toBe(true)
    expect(store.session?.room.ambient).toBe(28)
  })
})
