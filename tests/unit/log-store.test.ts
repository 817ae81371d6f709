import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { applyChanges } from '#core/edits'
import { demoSession } from '#demo/index'
import { dropLastWords, lastWordsOf, leaveLastWords, logRepository, sessionRepository } from '~/persistence'
import { useLogStore } from '~/stores/log'
import { useSessionStore } from '~/stores/session'
import { logTrouble, unlogged } from '~/stores/unlogged'
import { markOf, takeOf } from '../support/log'

const session = demoSession()
const take = takeOf
const mark = (id: string) => markOf(session, id)
let count = 0
async function opened() {
  const key = `log-store-${count++}`
  await sessionRepository.create(key, session, 'Opened')
  const store = useSessionStore()
  await store.show(key)
  return { key, store, log: useLogStore() }
}

beforeEach(() => {
  setActivePinia(createPinia())
  unlogged.value = 0
  logTrouble.value = null
})
afterEach(() => vi.restoreAllMocks())

describe('log entries under a failing storage', () => {
  it('stay when another session is opened, keep the page from going, are exported, and are stored once it takes them', async () => {
    const { key, store, log } = await opened()
    const failing = vi.spyOn(logRepository, 'add').mockRejectedValue(new DOMException('full', 'QuotaExceededError'))
    expect(await log.addTake(take('a', 1))).toBeNull()
    expect(await log.addMark(mark('m'))).toBeNull()
    expect([unlogged.value, store.isUnkept()]).toEqual([2, true])
    expect(logTrouble.value).toContain('full')
    const other = `log-store-${count++}`
    await sessionRepository.create(other, session, 'Opened')
    await store.show(other)
    expect(log.log.takes).toHaveLength(0)
    expect(unlogged.value).toBe(2)
    expect((await log.whole(key)).takes).toMatchObject([{ id: 'a' }])
    await store.show(key)
    await expect.poll(() => log.log.takes.length).toBe(1)
    failing.mockRestore()
    await log.retry()
    expect([unlogged.value, logTrouble.value, store.isUnkept()]).toEqual([0, null, false])
    expect((await logRepository.list(key)).length).toBe(2)
  })
  it('an entry that finds the log full is refused in words and does not wait', async () => {
    const { log } = await opened()
    const full = Object.assign(new Error('This log holds its maximum.'), { name: 'LogFullError' })
    vi.spyOn(logRepository, 'add').mockRejectedValue(full)
    expect(await log.addTake(take('a', 1))).toBe('This log holds its maximum.')
    expect([unlogged.value, log.log.takes.length]).toEqual([0, 0])
  })
})

describe('a mark', () => {
  it('is read when it is opened, and compared without being read', async () => {
    const { log } = await opened()
    await log.addMark(mark('m'))
    const louder = applyChanges(session, [{ strip: 'narrator', stage: 'n3', setting: 'gain', to: 41 } as never])
    await log.addMark({ ...mark('n'), session: louder })
    expect(log.open('n')?.session.strips[0]?.stages[2]?.settings.gain).toBe(41)
    expect([log.standsAsIn(session, 'm'), log.standsAsIn(session, 'n'), log.standsAsIn(louder, 'n')]).toEqual([
      true,
      false,
      true,
    ])
    expect(log.open('nobody')).toBeNull()
  })
  it('that is damaged is named, and nothing else is lost', async () => {
    const { log } = await opened()
    await log.addMark({ ...mark('m'), session: { ...session, strips: [] } as never })
    expect(log.open('m')).toBeNull()
    expect(log.aside).toMatchObject([{ name: 'Mark “Mark m”', why: 'damaged' }])
  })
  it('renamed, it keeps its session', async () => {
    const { key, log } = await opened()
    await log.addMark(mark('m'))
    const { session: _, ...head } = mark('m')
    await log.addMark({ ...head, name: 'Renamed' })
    expect(log.open('m')).toMatchObject({ name: 'Renamed', session: { name: session.name } })
    expect(JSON.stringify((await logRepository.list(key)).at(-1))).not.toContain('"session"')
  })
})

describe('what was typed as the page went', () => {
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, text: string) => kept.set(name, text),
    removeItem: (name: string) => kept.delete(name),
  })
  const named = (name: string) => ({ ...session, name })
  it('is taken in when the session is opened again, as a step that can be undone', async () => {
    const { key } = await opened()
    leaveLastWords({ key, writes: 1, label: 'Typed', session: named('Typed at last') })
    setActivePinia(createPinia())
    const again = useSessionStore()
    await again.show(key)
    expect([again.committed?.name, again.undoLabel]).toEqual(['Typed at last', 'Typed'])
    await again.settled()
    expect(lastWordsOf(key)).toBeNull()
  })
  it('goes on apart where another tab wrote meanwhile', async () => {
    const { key, store } = await opened()
    leaveLastWords({ key, writes: 1, label: 'Typed', session: named('Mine') })
    store.edit('Elsewhere', (each) => ({ ...each, notes: 'theirs' }))
    store.edit('Elsewhere', (each) => ({ ...each, notes: 'theirs again' }))
    await store.settled()
    setActivePinia(createPinia())
    const again = useSessionStore()
    await again.show(key)
    expect(again.committed?.notes).toBe('theirs again')
    expect((await sessionRepository.list()).map(({ name }) => name)).toContain('Mine (copy)')
  })
  it('is nothing where the note is torn or was dropped', () => {
    kept.set('remetra-last-words-x', '{"session":{}')
    expect(lastWordsOf('x')).toBeNull()
    dropLastWords('x')
    expect(kept.has('remetra-last-words-x')).toBe(false)
  })
})
