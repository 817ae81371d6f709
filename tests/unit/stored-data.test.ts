import 'fake-indexeddb/auto'
import Dexie from 'dexie'
import { describe, expect, it } from 'vitest'
import { demoSession } from '#demo/index'
import type { Change } from '#core/edits'
import type { Gear } from '#core/gear'
import type { Mark, Session, Take } from '#core/session'
import { MOST_MARKS, MOST_TAKES, SESSION_VERSION } from '#core/session'
import { applyChanges, blankGear } from '#core/edits'
import { guardedCell, markdownText, readSession, unguardedCell } from '#core/files'
import { logOf } from '#core/log/entries'
import { readSessionFile, writeSessionFile } from '#core/files/session-file'
import { sessionAsStored, storedMark } from '#core/files/stored-mark'
import { after } from '#core/trainer/schedule'
import { dbSpl } from '#core/units'
import { readCsv, writeCsv } from '~/composables/csv'
import { restoreBackup, saveBackup } from '~/persistence/backup-work'
import { NewerDatabaseError } from '~/persistence/conflict'
import { RemetraDatabase } from '~/persistence/database'
import { LogRepository } from '~/persistence/log-repository'
import { textOf } from '~/persistence/own-files'
import { rawParts } from '~/persistence/raw-export'
import { SessionRepository } from '~/persistence/session-repository'
import { ShelfRepository } from '~/persistence/shelf-repository'
import { asNamed, describeStorageTrouble } from '~/persistence/storage-trouble'
import { TrainerRepository } from '~/persistence/trainer-repository'
import { markOf, takeOf } from '../support/log'
import { example1, valid } from '../support/sessions'

const session = demoSession()
const NEWER = SESSION_VERSION + 1
let names = 0
const fresh = () => new RemetraDatabase(`stored-${names++}`)
const withGain = (gain: number): Session =>
  applyChanges(session, [{ strip: 'narrator', stage: 'n3', setting: 'gain', to: gain } as unknown as Change])
const mark = (id: string, of: Session = session) => markOf(of, id)
const take = takeOf
const history = (numbers: number[], cursor: number, of = session) => ({
  name: of.name,
  steps: numbers.map((number) => ({ number, label: `Step ${number}` })),
  cursor,
  unwritten: [{ number: cursor, label: `Step ${cursor}`, session: of }],
})

/** A step as a newer version writes it. */
const newerStep = (number: number, more: object = {}) => ({
  key: 'k',
  number,
  label: 'New',
  session: { ...session, version: NEWER, ...more } as never,
})

describe('data of a newer version', () => {
  it('a database of a newer version is neither read nor written, and can be exported as it is', async () => {
    const name = `stored-${names++}`
    const newer = new Dexie(name)
    newer.version(99).stores({ sessions: 'key', revisions: '[key+number], key', wonders: 'id' })
    await newer.table('sessions').add({ key: 'k', name: 'Of tomorrow' })
    await newer.table('wonders').bulkAdd(Array.from({ length: 450 }, (_, id) => ({ id })))
    newer.close()
    const repository = new SessionRepository(new RemetraDatabase(name))
    const error = await repository.create('mine', session, 'Opened').catch((each: unknown) => each)
    expect(describeStorageTrouble(error)).toContain('newer version of Remetra keeps data')
    await expect(repository.list()).rejects.toThrow()
    const parts: string[] = []
    for await (const part of rawParts(name)) parts.push(part)
    const raw = JSON.parse(parts.join('')) as { version: number; tables: Record<string, { name?: string }[]> }
    expect(raw.tables.sessions).toEqual([{ key: 'k', name: 'Of tomorrow' }])
    expect(raw.tables.wonders).toHaveLength(450)
    expect(raw.version).toBe(990)
  })

  it('a session of a newer version is shown as such, handed out raw, and changed by nobody', async () => {
    const database = fresh()
    const repository = new SessionRepository(database)
    const row = await repository.create('k', session, 'Opened')
    await database.revisions.put(newerStep(1, { wonder: 1 }))
    await database.sessions.update('k', {
      cursor: 1,
      version: NEWER,
      steps: [
        { number: 0, label: 'Opened' },
        { number: 1, label: 'New' },
      ],
    })
    const before = [await database.sessions.toArray(), await database.revisions.toArray()]
    const opening = await repository.read('k')
    expect(opening).toMatchObject({ state: 'newer', name: session.name })
    expect(JSON.stringify(opening)).toContain('wonder')
    await expect(repository.sync(row, history([0, 1], 1))).rejects.toMatchObject({ name: 'NewerDataError' })
    await expect(repository.replace('k', session, 'From the second copy')).rejects.toMatchObject({
      name: 'NewerDataError',
    })
    await expect(repository.remove('k', 1)).rejects.toMatchObject({ name: 'NewerDataError' })
    expect((await repository.whole('k')).session).toBeNull()
    expect([await database.sessions.toArray(), await database.revisions.toArray()]).toEqual(before)
  })

  it('a step of a newer version above the one shown is not dropped by an edit', async () => {
    const database = fresh()
    const repository = new SessionRepository(database)
    const row = await repository.create('k', session, 'Opened')
    await database.revisions.put(newerStep(5))
    await expect(repository.sync(row, history([0, 1], 1))).rejects.toMatchObject({ name: 'NewerDataError' })
    expect(await database.revisions.count()).toBe(2)
  })

  it('log, shelf and practice of a newer version stay as they are and are named; the rest is there', async () => {
    const database = fresh()
    const logs = new LogRepository(database)
    await logs.add('k', [{ mark: mark('m') }, { take: take('t', 1) }])
    await database.log.where({ key: 'k', take: 1 }).modify({ version: NEWER })
    const log = await logs.read('k')
    expect([log.entries.length, log.aside.map(({ name, why }) => [name, why])]).toEqual([1, [['Take 1', 'newer']]])

    const shelf = new ShelfRepository(database)
    const item = blankGear('pad', 'p', 'Pad') as Gear
    await shelf.add([{ ...item, id: 'p', name: 'Pad' }])
    await database.shelf.update('p', { version: NEWER })
    expect((await shelf.list()).aside.map(({ name, why }) => [name, why])).toEqual([['“Pad”', 'newer']])
    expect(await shelf.change({ ...item, id: 'p' }, { ...item, id: 'p', name: 'Changed' })).toContain('newer version')
    await expect(shelf.remove('p')).rejects.toMatchObject({ name: 'NewerDataError' })
    expect((await database.shelf.get('p'))?.item.name).toBe('Pad')

    const trainer = new TrainerRepository(database)
    const once = after(undefined, '1 hiss', 8, true, 20_000)
    await trainer.learn(once.kind, () => once)
    await trainer.addTime(20_000, 60)
    await database.trained.update('1 hiss', { version: NEWER })
    await database.practice.update(20_000, { version: NEWER } as never)
    await trainer.learn(once.kind, () => ({ ...once, seen: 9 }))
    await trainer.addTime(20_000, 60)
    await trainer.addBack({ progress: [{ ...once, seen: 99 }], seconds: [{ day: 20_000, seconds: 999 }] })
    await trainer.clear()
    expect([(await database.trained.get('1 hiss'))?.seen, (await database.practice.get(20_000))?.seconds]).toEqual([
      1, 60,
    ])
    expect((await trainer.read()).aside.map(({ why }) => why)).toEqual(['newer', 'newer'])
  })
})

describe('two tabs at once', () => {
  it('what both learn, practise and put on the shelf counts, every time', async () => {
    const name = `stored-${names++}`
    const tabs = [new RemetraDatabase(name), new RemetraDatabase(name)]
    const trainers = tabs.map((tab) => new TrainerRepository(tab))
    const shelves = tabs.map((tab) => new ShelfRepository(tab))
    const pad = blankGear('pad', 'pad', 'Pad')
    const round = (trainer: TrainerRepository, shelf: ShelfRepository) => [
      trainer.learn('1 hiss', (known) => after(known, '1 hiss', 80, true, 20_000)),
      trainer.addTime(20_000, 5),
      shelf.add([pad]),
    ]
    for (let i = 0; i < 10; i++)
      await Promise.all(trainers.flatMap((trainer, k) => round(trainer, shelves[k] as ShelfRepository)))
    const { progress, seconds } = await (trainers[0] as TrainerRepository).read()
    expect(progress.map(({ seen, good }) => [seen, good])).toEqual([[20, 20]])
    expect(seconds).toEqual([{ day: 20_000, seconds: 100 }])
    const ids = (await (shelves[1] as ShelfRepository).list()).rows.map(({ id }) => id)
    expect(new Set(ids).size).toBe(20)
  })
})

describe('what replaces something', () => {
  it('keeps what it replaced, until that is deleted by hand', async () => {
    const database = fresh()
    const repository = new SessionRepository(database)
    await repository.create('k', session, 'Opened')
    await database.revisions.toCollection().modify({ session: 'torn' as never })
    await repository.replace('k', session, 'From the second copy')
    const [kept] = await repository.replaced()
    expect(kept).toMatchObject({ name: session.name, why: 'replaced' })
    expect(JSON.stringify(kept?.raw)).toContain('torn')
    await repository.dropReplaced(kept?.number ?? 0)
    expect(await repository.replaced()).toEqual([])
    await repository.setAside('File “a.json”', 'text')
    expect(await repository.replaced()).toMatchObject([{ name: 'File “a.json”', raw: 'text' }])
  })
})

describe('damage', () => {
  it('a damaged log row is named and handed out; the others are there, and a backup is written that says what is not in it', async () => {
    const database = fresh()
    await new SessionRepository(database).create('k', session, 'Opened')
    const logs = new LogRepository(database)
    await logs.add('k', [{ mark: mark('m') }, { take: take('t', 1) }, { take: take('u', 2) }])
    await database.log.where({ key: 'k', take: 1 }).modify({ entry: { take: { number: 1, at: 'yesterday' } } as never })
    await database.log.add({ key: 'k', entry: null } as never)
    const reading = await logs.read('k')
    expect(logOf(reading.entries)).toMatchObject({ marks: [{ id: 'm' }], takes: [{ id: 'u' }] })
    expect(reading.aside.map(({ name, why }) => [name, why])).toEqual([
      ['Take 1', 'damaged'],
      ['Log entry 4', 'damaged'],
    ])
    const saved = await saveBackup(database, '2026-11-29T10:00:00Z')
    expect([saved.sessions, saved.left.length]).toEqual([1, 2])
    const restored = await restoreBackup(fresh(), saved.file)
    expect(restored).toMatchObject({ ok: true, added: 1 })
  })
  it('a session of which nothing can be read is left out of the backup, and named', async () => {
    const database = fresh()
    const repository = new SessionRepository(database)
    await repository.create('good', session, 'Opened')
    await repository.create('bad', { ...session, name: 'Torn' }, 'Opened')
    await database.revisions
      .where('key')
      .equals('bad')
      .modify({ session: {} as never })
    const saved = await saveBackup(database, '2026-11-29T10:00:00Z')
    expect(saved.sessions).toBe(1)
    expect(saved.left.map(({ name }) => name)).toContain('“Torn”')
  })
})

describe('a backup', () => {
  it('comes back under its names, and nothing that is there is doubled', async () => {
    const database = fresh()
    const sessions = new SessionRepository(database)
    const logs = new LogRepository(database)
    for (let i = 1; i <= 6; i++)
      await sessions.create(`s${i}`, { ...session, id: `s${i}`, name: `New session ${i}` }, 'Started')
    await logs.add('s6', [{ mark: mark('m') }, { take: take('t', 1) }])
    const { file } = await saveBackup(database, '2026-11-29T10:00:00Z')
    expect(await restoreBackup(database, file)).toMatchObject({ ok: true, added: 0, same: 6, logged: 0 })
    const elsewhere = fresh()
    await new SessionRepository(elsewhere).create('own', { ...session, name: 'New session 6' }, 'Started')
    expect(await restoreBackup(elsewhere, file)).toMatchObject({ ok: true, added: 6, same: 0 })
    const rows = (await new SessionRepository(elsewhere).list()).map(({ name }) => name).sort()
    expect(rows).toEqual([
      'New session 1',
      'New session 2',
      'New session 3',
      'New session 4',
      'New session 5',
      'New session 6',
      'New session 6',
    ])
    const key = (await elsewhere.log.toCollection().first())?.key ?? ''
    expect(logOf(await new LogRepository(elsewhere).list(key)).takes).toHaveLength(1)
  })
  it('of another program, cut short or with a key too many is refused in words, and nothing is taken', async () => {
    const database = fresh()
    await new SessionRepository(database).create('k', session, 'Opened')
    const text = await (await saveBackup(database, '2026-11-29T10:00:00Z')).file.text()
    for (const [wrong, code] of [
      [text.slice(0, -40), 'not-json'],
      [text.replace('"on"', '"of":1,"on"'), 'unknown-key'],
      [text.replace('remetra.backup', 'remetra.other'), 'other-format'],
      [text.replace('"version":1', '"version":2'), 'no-such-version'],
      ['{"format":"remetra.backup","version":1,"on":"2026-11-29T10:00:00Z","sessions":{},"shelf":[]}', 'wrong-type'],
      ['{"format":"remetra.backup","version":1,"on":"2026-11-29T10:00:00Z","sessions":[]}', 'missing'],
      ['not json', 'not-json'],
      ['', 'not-json'],
    ] as const) {
      const empty = fresh()
      const restored = await restoreBackup(empty, new Blob([wrong]))
      expect([wrong.slice(0, 30), restored.ok ? '' : restored.faults[0]?.code]).toEqual([wrong.slice(0, 30), code])
      expect(await empty.sessions.count()).toBe(0)
    }
  })
})

describe('two tabs and one log', () => {
  it('give no take number twice, in either order of writing', async () => {
    const database = fresh()
    const [one, other] = [new LogRepository(database), new LogRepository(database)]
    await Promise.all(
      Array.from({ length: 20 }, (_, i) => [
        one.add('k', [{ take: take(`a${i}`, i + 1) }]),
        other.add('k', [{ take: take(`b${i}`, i + 1) }]),
      ]).flat(),
    )
    const { takes } = logOf(await one.list('k'))
    expect(new Set(takes.map(({ number }) => number)).size).toBe(40)
    // A take that is judged keeps its number.
    await one.add('k', [{ take: { ...(takes[7] as Take), verdict: 'keep' } }])
    expect(logOf(await one.list('k')).takes.filter(({ verdict }) => verdict)).toMatchObject([
      { number: takes[7]?.number },
    ])
  })
  it('what is watched comes once, and then only what is new', async () => {
    const database = fresh()
    const logs = new LogRepository(database)
    await logs.add('k', [{ take: take('a', 1) }])
    const heard: number[] = []
    const stop = logs.watch(
      'k',
      (added) => heard.push(added.entries.length),
      () => heard.push(-1),
    )
    await expect.poll(() => heard).toEqual([1])
    await logs.add('k', [{ take: take('b', 2) }, { take: take('c', 3) }])
    await expect.poll(() => heard.reduce((sum, each) => sum + each, 0)).toBe(3)
    stop()
  })
})

describe('marks as changes', () => {
  it('are stored small, come back exactly, and leave a mark that has little in common whole', () => {
    const whole = mark('m')
    const changed = storedMark(mark('n', withGain(47)), whole)
    expect('changes' in changed && changed.changes.length).toBe(1)
    expect(readSession(sessionAsStored(changed, whole))).toEqual(readSession(JSON.parse(JSON.stringify(withGain(47)))))
    expect('session' in storedMark(mark('o', valid(example1())), mark('m', { ...session, strips: [], gear: [] }))).toBe(
      true,
    )
  })
  it('an earlier version’s log is brought over: every mark once with its session, the rest as changes', async () => {
    const name = `stored-${names++}`
    const before = new Dexie(name)
    before.version(7).stores({ log: '++number, key' })
    const entries = [
      { mark: mark('m') },
      { take: take('t', 1) },
      { mark: mark('n', withGain(40)) },
      { mark: { ...mark('m'), name: 'Renamed' } },
      { mark: 7 },
    ]
    await before.table('log').bulkAdd(entries.map((entry) => ({ key: 'k', entry })))
    before.close()
    const database = new RemetraDatabase(name)
    const logs = new LogRepository(database)
    const reading = await logs.read('k')
    const { marks, takes } = logOf(reading.entries)
    expect([marks.map((each) => [each.name, 'session' in each]), takes.length, reading.aside.length]).toEqual([
      [
        ['Renamed', true],
        ['Mark n', false],
      ],
      1,
      1,
    ])
    expect(sessionAsStored(marks[1] as never, marks[0])).toEqual(JSON.parse(JSON.stringify(withGain(40))))
    expect((await database.log.toArray()).filter(({ whole }) => whole === 1)).toHaveLength(1)
  })
  it('another copy’s changes against a mark that is stored as changes here are taken in whole', async () => {
    const logs = new LogRepository(fresh())
    const [a, b, c] = [mark('a'), mark('b', withGain(40)), mark('c', withGain(41))]
    await logs.add('mine', [{ mark: a }, { mark: b }])
    await logs.add('theirs', [{ mark: b }, { mark: c }])
    await logs.addMissing('mine', logOf(await logs.list('theirs')))
    const log = logOf(await logs.list('mine'))
    const reading = readSessionFile(writeSessionFile(session, log))
    expect(reading.ok && reading.log?.marks.map(({ id }) => id)).toEqual(['a', 'b', 'c'])
    expect(sessionAsStored(log.marks[2] as never, log.marks[0])).toEqual(JSON.parse(JSON.stringify(withGain(41))))
  })
})

describe('the largest log', () => {
  const small = valid(example1())
  const of = (i: number): Session =>
    i % 100 === 0 ? { ...small, notes: `${i}`.repeat(5000) } : { ...small, room: { ambient: dbSpl(20 + (i % 40)) } }
  const name = `of ${MOST_MARKS} marks and ${MOST_TAKES} takes is stored, refused one more in words, written and read again`
  it(name, { timeout: 300_000 }, async () => {
    const logs = new LogRepository(fresh())
    const marks = logStored(Array.from({ length: MOST_MARKS }, (_, i) => mark(`m${i}`, of(i))))
    const takes = Array.from({ length: MOST_TAKES }, (_, i) => ({ ...take(`t${i}`, i + 1), note: 'n'.repeat(100) }))
    await logs.addMissing('k', { marks, takes })
    await expect(logs.add('k', [{ mark: mark('one more', small) }])).rejects.toMatchObject({ name: 'LogFullError' })
    await expect(logs.add('k', [{ take: take('one more', 1) }])).rejects.toThrow(/10000 takes/)
    // Merged with another computer's, it goes over what can be added by hand, and still comes back.
    await logs.addMissing('k', { marks: [mark('theirs', small)], takes: [take('theirs', 1)] })
    const text = writeSessionFile(session, logOf(await logs.list('k')))
    const reading = readSessionFile(text)
    expect(reading.ok && [reading.log?.marks.length, reading.log?.takes.length]).toEqual([
      MOST_MARKS + 1,
      MOST_TAKES + 1,
    ])
    expect(reading.ok && writeSessionFile(reading.session, reading.log)).toBe(text)
  })
})
const logStored = (marks: readonly Mark[]) => {
  let whole: Mark | null = null
  return marks.map((each) => {
    const stored = storedMark(each, whole)
    if ('session' in stored) whole = stored
    return stored
  })
}

describe('an error of the storage', () => {
  it('keeps the name that matters when it crosses a thread', () => {
    const inner = new NewerDatabaseError('made by a newer version')
    const crossed = asNamed(Object.assign(new Error(''), { name: 'DatabaseClosedError', inner }))
    expect(describeStorageTrouble({ name: crossed.name, message: crossed.message })).toContain(
      'newer version of Remetra keeps',
    )
  })
})

describe('cells and texts of tables', () => {
  it.each(['=1+1', '+cmd', '-2+3', '−2+3', '@sum', '\tx', '\rx', '\u0000x', '  =1', "'quoted"])(
    '%j is guarded and comes back',
    (text) => {
      expect(guardedCell(text).startsWith("'")).toBe(true)
      expect(unguardedCell(guardedCell(text))).toBe(text)
      const reading = readCsv(writeCsv([['a', text]]))
      expect(reading.ok && reading.table[0]).toEqual(['a', text])
    },
  )
  it.each(['-12.3', '−12.3', '+4', '1e-9', '-1E-3', 'a=b', '', '48 V'])('%j stays as it is', (text) =>
    expect(guardedCell(text)).toBe(text),
  )
  it('Markdown shows what was typed, links to nothing and keeps its table', () =>
    expect(markdownText('[x](javascript:alert(1)) <img src=x> *a* `b` | c\nd \\ &lt;')).toBe(
      '\\[x\\](javascript:alert(1)) \\<img src=x\\> \\*a\\* \\`b\\` \\| c d \\\\ \\&lt;',
    ))
})

describe('a file of the browser’s own store', () => {
  const handle = (...troubles: string[]) =>
    ({
      getFile: async () => {
        const trouble = troubles.shift()
        if (trouble) throw new DOMException('', trouble)
        return new Blob(['whole'])
      },
    }) as unknown as FileSystemFileHandle
  it('that is replaced while it is read is read again, once; another trouble is one', async () => {
    expect(await textOf(handle('NotFoundError'))).toBe('whole')
    await expect(textOf(handle('NotFoundError', 'NotFoundError'))).rejects.toThrow()
    await expect(textOf(handle('NotReadableError'))).rejects.toThrow()
  })
})
