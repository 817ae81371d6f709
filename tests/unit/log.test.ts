import 'fake-indexeddb/auto'
import { describe, expect, it } from 'vitest'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { compareSessions, lastDifferent } from '#core/log/compare'
import {
  backTo,
  entriesOf,
  fullLog,
  idOf,
  lastMark,
  logOf,
  missingFrom,
  nextTakeNumber,
  standsAs,
} from '#core/log/entries'
import { recallSteps } from '#core/log/recall'
import { runSheetTable } from '#core/log/run-sheet-table'
import { runSheet, withTick } from '#core/soundcheck/run-sheet'
import { valid } from '../support/sessions'
import { asJson, asMarkdown, lengthInWords, recallSheet, recallTable, stageBoxTable, takeTable } from '#core/log/sheets'
import type { Change } from '#core/edits'
import type { Log, Mark, Session, Take } from '#core/session'
import { MOST_MARKS, MOST_TAKES } from '#core/session'
import { applyChanges } from '#core/edits'
import { sessionJsonSchema, writeSession } from '#core/files'
import { readBackup, writeBackup } from '#core/files/backup'
import { readSessionFile, writeSessionFile } from '#core/files/session-file'
import { RemetraDatabase } from '~/persistence/database'
import { LogRepository } from '~/persistence/log-repository'
import { SessionRepository } from '~/persistence/session-repository'
import { demoSession } from '../../demo'
import { markOf, takeOf } from '../support/log'

const session = demoSession()
const change = (strip: string, stage: string, setting: string, to: unknown) =>
  ({ strip, stage, setting, to }) as unknown as Change
const mark = (id: string, of: Session = session, more: Partial<Mark> = {}) => markOf(of, id, more)
const take = (number: number, more: Partial<Take> = {}) => takeOf(`take-${number}`, number, more)
const evaluated = (of: Session) => ({ session: of, evaluation: evaluateSession(of) })

describe('the log in the session file', () => {
  const log: Log = { marks: [mark('m1')], takes: [take(1, { verdict: 'keep', seconds: 187, peak: -12.3, mark: 'm1' })] }
  const text = writeSessionFile(session, log)
  const reading = readSessionFile(text)
  it('is read back whole, and written to the same bytes', () => {
    expect(reading.ok && reading.log).toEqual(log)
    expect(reading.ok && writeSessionFile(reading.session, reading.log)).toBe(text)
  })
  it('is no part of the session, and of no evaluation', () => {
    expect(reading.ok && 'log' in reading.session).toBe(false)
    expect(reading.ok && JSON.stringify(evaluateSession(reading.session))).toBe(
      JSON.stringify(evaluateSession(session)),
    )
  })
  it('a file without one has none; an empty one is not written', () => {
    expect(readSessionFile(writeSession(session))).toMatchObject({ ok: true, log: null })
    expect(writeSessionFile(session, { marks: [], takes: [] })).toBe(writeSession(session))
  })
  it('stands in the schema', () => expect(JSON.stringify(sessionJsonSchema())).toContain('"takes"'))
  const faulty = (change: (raw: { log: { marks: unknown[]; takes: unknown[] } }) => void) => {
    const raw = JSON.parse(text) as { log: { marks: unknown[]; takes: unknown[] } }
    change(raw)
    const found = readSessionFile(JSON.stringify(raw))
    return found.ok ? [] : found.faults.map(({ path, message }) => `${path}: ${message}`)
  }
  it.each([
    [
      'a mark’s session of a version to come',
      /log\.marks\[0\]\.session\.version: .*newer/i,
      (raw) => Object.assign((raw.log.marks[0] as Mark).session, { version: 9 }),
    ],
    [
      'a fault deep in it',
      /log\.marks\[0\]\.session\.strips\[0\]\.stages\[2\]/,
      (raw) => Object.assign((raw.log.marks[0] as Mark).session.strips[0]?.stages[2] ?? {}, { gear: 'nobody' }),
    ],
    [
      'a log within a log',
      /log\.marks\[0\]\.session\.log: .*no log of its own/,
      (raw) => Object.assign((raw.log.marks[0] as Mark).session, { log: { marks: [], takes: [] } }),
    ],
    ['two entries of one id', /log\.takes\[1\]\.id: .*another entry/, (raw) => raw.log.takes.push(raw.log.takes[0])],
    [
      'a verdict that is none',
      /log\.takes\[0\]\.verdict: .*"keep"/,
      (raw) => Object.assign(raw.log.takes[0] as Take, { verdict: 'great' }),
    ],
    ['a log that is a list', /^log: /, (raw) => Object.assign(raw, { log: [] })],
    ['a log of a version to come', /log\.version: .*newer Remetra/, (raw) => Object.assign(raw.log, { version: 3 })],
    [
      'a mark without a session',
      /log\.marks\[0\]\.session: Give the session/,
      (raw) => Object.assign(raw.log.marks[0] as Mark, { session: undefined }),
    ],
    [
      'changes against a mark that is not there',
      /log\.marks\[1\]\.from: No earlier mark "m7"/,
      (raw) => raw.log.marks.push({ ...mark('m2'), session: undefined, from: 'm7', changes: [] }),
    ],
    [
      'changes that do not fit',
      /log\.marks\[1\]\.changes: .*do not fit/,
      (raw) =>
        raw.log.marks.push({
          ...mark('m2'),
          session: undefined,
          from: 'm1',
          changes: [{ op: 'replace', path: '/strips/99/name', value: 'x' }],
        }),
    ],
    [
      'changes into something that is no session',
      /log\.marks\[1\]\.changes\.strips/,
      (raw) =>
        raw.log.marks.push({
          ...mark('m2'),
          session: undefined,
          from: 'm1',
          changes: [{ op: 'replace', path: '/strips', value: [] }],
        }),
    ],
  ] as [string, RegExp, (raw: { log: { marks: unknown[]; takes: unknown[] } }) => void][])(
    '%s is refused with its path, and nothing is taken',
    (_, words, spoil) => expect(faulty(spoil).join('; ')).toMatch(words),
  )
  it('many marks are no session too large: each is read as a file of its own', () => {
    const many = { marks: Array.from({ length: 60 }, (_, i) => mark(`m${i}`)), takes: [] }
    expect(readSessionFile(writeSessionFile(session, many)).ok).toBe(true)
  })
})

describe('entries', () => {
  it('a later entry of an id takes the earlier one’s place, and keeps its own', () => {
    const log = logOf([{ take: take(1) }, { mark: mark('a') }, { take: take(1, { verdict: 'no' }) }, { take: take(2) }])
    expect(log.takes.map(({ number, verdict }) => [number, verdict])).toEqual([
      [1, 'no'],
      [2, undefined],
    ])
    expect(logOf(entriesOf(log))).toEqual(log)
  })
  it('numbers count on past what is deleted', () => {
    expect(nextTakeNumber({ takes: [] })).toBe(1)
    expect(nextTakeNumber({ takes: [take(3), take(7, { struck: true })] })).toBe(8)
  })
  it('another log adds what is not here yet, and nothing twice', () => {
    const mine = { marks: [mark('a')], takes: [take(1)] }
    const other = { marks: [mark('a'), mark('b')], takes: [take(1), take(2)] }
    expect(missingFrom(mine, other).map((each) => ('mark' in each ? each.mark.id : each.take.id))).toEqual([
      'b',
      'take-2',
    ])
    expect(missingFrom(logOf([...entriesOf(mine), ...missingFrom(mine, other)]), other)).toEqual([])
  })
  it('the last mark is the last that is meant', () =>
    expect(lastMark({ marks: [mark('a'), mark('b', session, { struck: true })], takes: [] })?.id).toBe('a'))
  it('a full log says so', () => {
    expect(fullLog({ marks: MOST_MARKS, takes: MOST_TAKES })).toBeNull()
    expect(fullLog({ marks: MOST_MARKS + 1, takes: 0 })).toMatch(/2000 marks/)
    expect(fullLog({ marks: 0, takes: MOST_TAKES + 1 })).toMatch(/10000 takes/)
  })
  it('a session stands as a mark has it whatever was ticked since, and no longer when a knob was turned', () => {
    expect(standsAs(withTick(session, { id: 'x', holds: '' }, '2026-11-20T19:00:00Z'), session)).toBe(true)
    expect(standsAs(applyChanges(session, [change('narrator', 'n3', 'gain', 36)]), session)).toBe(false)
  })
})

describe('back to a mark', () => {
  const then = evaluated(session)
  const back = (now: Session) => recallSteps(evaluated(now), then)
  it('nothing differs, nothing is to be done', () => expect(back(session)).toEqual([]))
  it('only what differs, in working order, each with how it stands now', () => {
    const now = applyChanges({ ...session, system: { ...session.system, bufferFrames: 512 as never } }, [
      change('cello', 'c3', 'gain', 30),
      change('harmonium', 'h1', 'distance', 1),
      change('narrator', 'n3', 'phantom', false),
      change('cello', 'c3', 'phantom', false),
    ])
    const steps = back(now)
    expect(steps.map(({ title }) => title)).toEqual([
      '48 V of bank A of Saltmarsh Four: on',
      'Gain: 24 dB on mic2 of Saltmarsh Four',
      '1.4 m from Harmonium, both knees',
      'Buffer: 128 frames',
    ])
    expect(steps[0]?.caution).toMatch(/muted/)
    expect(steps[1]?.now).toBe('Gain: 30 dB on mic2 of Saltmarsh Four')
  })
  it('what was not there then is unplugged first', () => {
    const strip = session.strips[0] as Session['strips'][0]
    const more = {
      ...session,
      strips: [
        ...session.strips,
        { ...strip, id: 'extra', name: 'Extra', stages: strip.stages.map((each, i) => ({ ...each, id: `x${i}` })) },
      ],
    }
    expect(back(more)[0]).toMatchObject({ title: 'Extra: not in this mark, unplug it', group: 'plugs' })
  })
  it('set back, the session stands as in the mark, under its own name and with what was read since', () => {
    const now = { ...applyChanges(session, [change('cello', 'c3', 'gain', 30)]), name: 'Next week', notes: 'new' }
    const set = backTo(now, mark('a'))
    expect(set).toMatchObject({ name: 'Next week', notes: 'new' })
    expect(standsAs(set, session)).toBe(true)
    expect(back(set)).toEqual([])
  })
})

describe('two marks compared', () => {
  it('opens on the last two marks between which something was changed; a name or a tick is no change', () => {
    const louder = applyChanges(session, [change('narrator', 'n3', 'gain', 40)])
    const states: Record<string, Session> = { d: { ...louder, name: 'Renamed' }, c: louder, b: session, a: louder }
    const opened = (ids: string) =>
      lastDifferent(
        [...ids].map((id) => ({ id })),
        (id) => states[id] ?? null,
      )
    expect(opened('dcba')).toEqual({ from: 'b', to: 'c' })
    expect(opened('dc')).toBeNull()
    expect(opened('b')).toBeNull()
    expect(opened('dxb')).toBeNull()
  })
  it('a gain turned up by 3 dB: the setting, 3 dB less headroom, 3 dB more floor', () => {
    const louder = applyChanges(session, [change('narrator', 'n3', 'gain', 38)])
    const { settings, gear, figures } = compareSessions(evaluated(session), evaluated(louder))
    expect(settings).toEqual([
      {
        of: 'Narrator',
        what: 'mic1 of Saltmarsh Four, gain',
        from: '35 dB (knob about a quarter past one)',
        to: '38 dB (knob about a quarter to two)',
      },
    ])
    expect(gear).toEqual([])
    const own = figures.filter(({ strip }) => strip === 'narrator')
    expect(own.map(({ figure, from, to }) => [figure, Math.round(10 * ((to ?? 0) - (from ?? 0))) / 10])).toEqual([
      ['headroom', -3],
      ['floor', 3],
    ])
  })
  it('another buffer changes the time to the ear of those who hear through the host', () => {
    const slower = { ...session, system: { ...session.system, bufferFrames: 256 as never } }
    const { figures, settings } = compareSessions(evaluated(session), evaluated(slower))
    expect(settings.map(({ what }) => what)).toEqual(['Buffer'])
    expect(new Set(figures.map(({ figure }) => figure))).toEqual(new Set(['roundTrip']))
    expect(figures.some(({ strip }) => strip === 'cello')).toBe(false)
  })
  it('gear that changed is told by its figure, gear that came or went by its name', () => {
    const other = {
      ...session,
      gear: session.gear
        .filter(({ id }) => id !== 'mussel')
        .map((each) =>
          each.id === 'sandpiper'
            ? { ...each, specs: { ...(each as { specs: object }).specs, sensitivity: 12 } }
            : each,
        ),
    } as Session
    const { gear } = compareSessions(evaluated(session), evaluated(other))
    expect(gear.map(({ of, what }) => `${of}: ${what}`)).toEqual([
      'Mussel closed headphones: In the session',
      'Sandpiper small condenser: Sensitivity',
    ])
  })
})

/** The session with a pattern switched at one of its microphones. */
const withChoiceAt = (of: Session, name: string, pattern: string) => ({
  ...of,
  gear: of.gear.map((item) => (item.name === name ? { ...item, pattern } : item)),
})

describe('sheets', () => {
  it('the recall sheet has every control, also those that stand at zero', () => {
    const [narrator] = recallSheet(session)
    expect(narrator).toMatchObject({ strip: 'Narrator', channel: 1 })
    const input = narrator?.stages.find(({ stage }) => stage === 'mic1 of Saltmarsh Four')
    expect(input?.others.map(({ name, words }) => `${name} ${words}`)).toEqual(['48 V on, bank A', 'Pad out'])
    const microphone = narrator?.stages.find(({ stage }) => stage === 'Sandpiper small condenser')
    expect(microphone?.others).toEqual([{ name: 'Needs', words: '48 V' }])
    expect(input?.gains[0]).toMatchObject({ words: '35 dB (knob about a quarter past one)', scale: { value: 35 } })
    expect(recallTable(session).at(-1)?.at(-2)).toBe('48 kHz, 24 bits, buffer 128 frames, maker’s driver')
    const texts = recallTable(session).map((row) => row.join(' '))
    expect(texts.some((each) => each.includes('Weir limiter'))).toBe(true)
    // What is read again is held against this, and has a place to be written.
    expect(narrator?.expected).toBeCloseTo(-19.08, 1)
    expect(texts).toContain('Narrator 1  Expected peak, dBFS -19.1 ')
    expect(recallTable(session)[0]?.at(-1)).toBe('Read')
    // Before any hand goes to a switch.
    expect(texts[1]).toContain('Mute the outputs')
    const cardioid = valid(withChoiceAt(session, 'Sandpiper small condenser', 'cardioid'))
    expect(recallSheet(cardioid)[0]?.stages[1]?.others).toEqual([
      { name: 'Needs', words: '48 V' },
      { name: 'Pattern', words: 'cardioid' },
    ])
    expect(texts.some((each) => each.includes('Send, Visitors’ preview −6 dB, post fader'))).toBe(true)
  })
  it('the run sheet has every step in working order, what the meter must show as numbers, and room for what it showed', () => {
    const steps = runSheet(session, evaluateSession(session))
    const [header, ...rows] = runSheetTable(session, steps)
    expect(header).toEqual([
      'No.',
      'Done',
      'Section',
      'Step',
      'How',
      'Caution',
      'Expected from',
      'Expected to',
      'Unit',
      'Meter',
      'Read',
    ])
    expect(rows.map(([number]) => number)).toEqual(steps.map((_, i) => i + 1))
    expect(rows.map((row) => row[3])).toEqual(steps.map(({ title }) => title))
    const read = rows.find((row) => typeof row[6] === 'number')
    const step = steps.find((each) => each.read)
    expect(read?.slice(6, 9)).toEqual([Number(step?.read?.low.toFixed(1)), Number(step?.read?.high.toFixed(1)), 'dBFS'])
    expect(rows.some((row) => String(row[2]).startsWith('Narrator, '))).toBe(true)
    const done = runSheetTable(
      session,
      steps.map((each, i) => ({ ...each, state: i === 0 ? 'done' : 'again' })),
    )
    expect(done.slice(1).map((row) => row[1])).toEqual(['yes', ...steps.slice(1).map(() => 'again')])
  })
  it('the stage box list counts as the recorder counts', () => {
    expect(stageBoxTable(session).map((row) => row.slice(0, 4).join('|'))).toEqual([
      'Recorder’s channel|Unit|Socket|Strip',
      '1|Saltmarsh Four|mic1|Narrator',
      '2|Saltmarsh Four|mic2|Cello',
      '4|Saltmarsh Four|mic4|Harmonium',
      '5|Saltmarsh Four|line5|Tide, recorder',
    ])
    expect(stageBoxTable(session)[1]?.slice(5)).toEqual(['needs 48 V', '', 'on, bank A', 'out'])
    // The ribbon’s line says beside the switch that it must stay off.
    expect(stageBoxTable(session)[3]?.[5]).toBe('must not get 48 V')
  })
  it('the take log leaves out what is deleted', () => {
    const log = {
      marks: [mark('m')],
      takes: [take(1, { mark: 'm', seconds: 3750, peak: -9.05, clippedRuns: 0 }), take(2, { struck: true })],
    }
    expect(takeTable(log, session).slice(1)).toEqual([
      [1, '', 'Narrator', '2026-11-20T19:30:00+01:00', '1:02:30', '', -9.1, 0, 'Mark m', ''],
    ])
    expect(lengthInWords(187.4)).toBe('3:07')
  })
  it('Markdown and JSON hold the table whatever is written in it', () => {
    const table = [
      ['Name', 'Note'],
      ['a | b', 'two\nlines'],
    ]
    // Numbers stay numbers in data, and are read with a true minus.
    expect(JSON.parse(asJson([['Peak, dBFS'], [-9.1]]))).toEqual([{ 'Peak, dBFS': -9.1 }])
    expect(asMarkdown('Sheet', [['Peak'], [-9.1]])).toContain('| −9.1 |')
    expect(asMarkdown('Sheet', table)).toBe('# Sheet\n\n| Name | Note |\n| --- | --- |\n| a \\| b | two lines |\n')
    expect(JSON.parse(asJson(table))).toEqual([{ Name: 'a | b', Note: 'two\nlines' }])
  })
})

describe('the table of the log in the browser', () => {
  const database = new RemetraDatabase('log-test')
  const repository = new LogRepository(database)
  const sessions = new SessionRepository(database)
  it('keeps entries in their order, by session, apart from the steps of undo', async () => {
    await repository.add('a', [{ take: take(1) }, { mark: mark('m') }])
    await repository.add('b', [{ take: take(9) }])
    await repository.add('a', [{ take: take(1, { verdict: 'keep' }) }])
    expect(logOf(await repository.list('a'))).toMatchObject({
      takes: [{ number: 1, verdict: 'keep' }],
      marks: [{ id: 'm' }],
    })
    expect(await database.log.count()).toBe(4)
  })
  it('a long log is written and read by slices: all of it, in its order, once', async () => {
    const takes = Array.from({ length: 205 }, (_, i) => takeOf(`long-${i}`, i + 1))
    expect(await repository.addMissing('long', { marks: [], takes })).toBe(205)
    expect((await repository.list('long')).map(idOf)).toEqual(takes.map(({ id }) => id))
    expect((await repository.read('long')).aside).toEqual([])
    await database.log.where('key').equals('long').delete()
  })
  it('goes along when a session goes on under another key, and goes with one that is deleted for good', async () => {
    await repository.copy('a', 'c')
    expect(await repository.list('c')).toEqual(await repository.list('a'))
    await sessions.erase(['a'])
    expect(await repository.list('a')).toEqual([])
    expect(await repository.list('c')).toHaveLength(3)
  })
  it('is in the backup, and comes back from it', async () => {
    await sessions.create('d', session, 'Opened')
    await repository.add('d', [{ take: take(4) }, { mark: mark('m') }])
    const { session: kept } = await sessions.whole('d')
    const backup = { on: '2026-11-27T10:00:00Z', sessions: [kept as NonNullable<typeof kept>], shelf: [] }
    const reading = readBackup(writeBackup(backup))
    const [first] = reading.ok ? reading.backup.sessions : []
    expect(first?.log?.takes.map(({ number }) => number)).toEqual([4])
    await sessions.add('e', first as NonNullable<typeof first>)
    expect(logOf(await repository.list('e'))).toEqual(first?.log)
  })
  it('takes from another log what it does not have, once', async () => {
    await repository.add('f', [{ mark: mark('m', session, { name: 'Mine' }) }, { take: take(1) }])
    const other = { marks: [mark('m', session, { name: 'Theirs' }), mark('n')], takes: [take(1), take(2)] }
    expect(await repository.addMissing('f', other)).toBe(2)
    expect(await repository.addMissing('f', other)).toBe(0)
    const log = logOf(await repository.list('f'))
    expect(log.marks.map(({ id, name }) => [id, name])).toEqual([
      ['m', 'Mine'],
      ['n', mark('n').name],
    ])
    expect(log.takes.map(({ number }) => number)).toEqual([1, 2])
  })
  it('stays when its session is replaced by its second copy, though nothing of the session could be read', async () => {
    await sessions.create('g', session, 'Opened')
    await repository.add('g', [{ take: take(7) }])
    await database.revisions
      .where('key')
      .equals('g')
      .modify({ session: 'torn' as never })
    expect((await sessions.read('g')).state).toBe('unreadable')
    await sessions.replace('g', session, 'From the second copy')
    expect(await sessions.read('g')).toMatchObject({ state: 'open', session: { name: session.name } })
    expect(await repository.list('g')).toHaveLength(1)
  })
  it('a faulty log in a backup is named, and nothing is taken', () => {
    const text = writeBackup({
      on: '2026-11-27T10:00:00Z',
      sessions: [
        {
          name: 'x',
          updatedAt: 1,
          cursor: 0,
          steps: [{ number: 0, label: '', session }],
          log: { marks: [], takes: [{ ...take(1), number: 0 }] },
        },
      ],
      shelf: [],
    })
    const reading = readBackup(text)
    expect(!reading.ok && reading.faults[0]?.path).toBe('sessions[0].log.takes[0].number')
  })
})
