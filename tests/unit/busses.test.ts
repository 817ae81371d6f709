import { describe, expect, it } from 'vitest'
import { evaluateFrom, evaluateSession } from '#core/evaluation/evaluate-session'
import type { MixRow } from '#core/evaluation/mix'
import { mixRows } from '#core/evaluation/mix'
import { unchanged } from '#core/evaluation/unchanged'
import { verdict } from '#core/evaluation/verdict'
import { loudspeakerSettings } from '#core/monitoring/loudspeakers'
import { equalise } from '#core/plan/equalise'
import { planSession } from '#core/plan/plan-session'
import { seeded } from '#core/numeric/random'
import type { Change } from '#core/edits'
import type { Session } from '#core/session'
import {
  addBus,
  applyChanges,
  applySettings,
  busUses,
  copyStrip,
  startSession,
  feedsWith,
  removeStrip,
  withoutFeed,
} from '#core/edits'
import { feedFrom } from '#core/session'
import { feedsOf } from '#core/model'
import { readSession } from '#core/files'
import { db, formatDecimal } from '#core/units'
import { twoMixes } from '../support/desk'
import { valid } from '../support/sessions'

type File = ReturnType<typeof twoMixes>
const faultsOf = (change: (file: File) => void) => {
  const file = structuredClone(twoMixes())
  change(file)
  const reading = readSession(file)
  return reading.ok ? [] : reading.faults.map(({ path, code }) => `${path} ${code}`)
}
const strip = (session: Session, id: string) => session.strips.find((each) => each.id === id)!
const evaluated = (session: Session, id: string) => evaluateSession(session).strips.find((each) => each.id === id)!
const codes = (session: Session, id: string) => evaluated(session, id).findings.map(({ code }) => code)

describe('what feeds what, as a file may say it', () => {
  it('a feed into nothing, into a channel, from a stage that is not there', () => {
    expect(faultsOf(({ strips }) => Object.assign(strips[0]!, { feeds: [{ to: 'nobody' }] }))).toEqual([
      'strips[0].feeds[0].to no-such-strip',
    ])
    expect(faultsOf(({ strips }) => Object.assign(strips[0]!, { feeds: [{ to: 'bass' }] }))).toEqual([
      'strips[0].feeds[0].to not-a-bus',
    ])
    expect(faultsOf(({ strips }) => Object.assign(strips[0]!, { feeds: [{ to: 'stream', from: 'b1' }] }))).toEqual([
      'strips[0].feeds[0].from no-such-stage',
    ])
  })
  it('a feed of a strip without stages says what to do', () => {
    const file = structuredClone(twoMixes())
    Object.assign(file.strips[0]!, { stages: [], feeds: [{ to: 'stream' }] })
    const reading = readSession(file)
    expect(reading.ok ? [] : reading.faults.filter(({ path }) => path === 'strips[0].feeds[0].from')).toMatchObject([
      { message: 'This strip has no stage that this feed could leave from. Give it stages, or remove the feed.' },
    ])
  })
  it('a circle is named at each feed that closes it, also by way of others', () => {
    expect(faultsOf(({ strips }) => Object.assign(strips[4]!, { feeds: [{ to: 'room', from: 'r1' }] }))).toEqual([
      'strips[4].feeds[0].to circle',
    ])
    const around = faultsOf(({ strips }) => {
      Object.assign(strips[3]!, { feeds: [{ to: 'room', from: 's1' }] })
      Object.assign(strips[4]!, { feeds: [{ to: 'stream', from: 'r1' }] })
    })
    expect(around).toEqual(['strips[3].feeds[0].to circle', 'strips[4].feeds[0].to circle'])
  })
  it('numbers into an analogue bus, volts into a digital one, sound into any', () => {
    expect(faultsOf(({ strips }) => Object.assign(strips[3]!, { feeds: [{ to: 'room' }] }))).toEqual([
      'strips[3].feeds[0].to mixed-domain',
    ])
    expect(faultsOf(({ strips }) => Object.assign(strips[0]!, { feeds: [{ to: 'stream', from: 'a1' }] }))).toEqual([
      'strips[0].feeds[0].to mixed-domain',
    ])
  })
  it('a bus begins with no source, a channel with one', () => {
    expect(faultsOf(({ strips }) => Object.assign(strips[3]!, { stages: strips[0]!.stages, feeds: [] }))).toContain(
      'strips[3].stages[0].gear order',
    )
    expect(faultsOf(({ strips }) => Object.assign(strips[3]!, { kind: 'channel' }))).toContain(
      'strips[3].stages[0].gear order',
    )
  })
  it('the switches of older files become feeds where there is such a bus, and a note where there is none', () => {
    const file = structuredClone(twoMixes())
    for (const each of file.strips.slice(0, 3)) delete each.feeds
    Object.assign(file.strips[0]!, { sends: { stream: true, room: true } })
    Object.assign(file.strips[1]!, { sends: { stream: false, room: false } })
    const both = valid(file)
    expect(feedsOf(strip(both, 'alto')).map(({ to, tap, gain }) => [to, tap, gain])).toEqual([
      ['stream', 'post', 0],
      ['room', 'post', 0],
    ])
    expect([both.notes, feedsOf(strip(both, 'bass'))]).toEqual(['', []])
    const old = valid({ ...file, version: 1, notes: 'As it was.', strips: file.strips.slice(0, 3) })
    expect(old.notes).toBe('As it was.\n“Alto” goes to the stream.\n“Alto” goes to the room.')
    expect(strip(old, 'alto')).not.toHaveProperty('sends')
  })
})

describe('what a bus carries', () => {
  const session = valid(twoMixes())
  it('every noise with the strip that it is from; all shares add to 1', () => {
    const { noise } = evaluated(session, 'stream')
    expect(new Set(noise.map((each) => each.strip))).toEqual(new Set(['alto', 'bass', 'player', 'stream']))
    expect(noise.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9)
  })
  it('an open microphone more raises the room by 3.01 dB where all are alike', () => {
    const file = { ...structuredClone(twoMixes()), room: { ambient: 40 } }
    file.strips[1]!.stages = [
      { id: 'b1', gear: 'alto2', settings: { distance: 0.1 } },
      { id: 'b2', gear: 'mic-b' },
      { id: 'b3', gear: 'ch-b', settings: { gain: 45, fader: 0 } },
    ]
    file.strips[1]!.feeds = [{ to: 'stream' }]
    file.gear.push({ ...file.gear[0], id: 'alto2', name: 'Alto 2' })
    const room = (each: Session) => {
      const all = evaluated(each, 'stream').noise.filter(({ name }) => name === 'room')
      return 10 * Math.log10(all.reduce((sum, { level }) => sum + 10 ** (level / 10), 0))
    }
    const two = valid(file)
    expect(room(two) - room(withoutFeed(two, 'bass', 'stream'))).toBeCloseTo(3.01, 2)
  })
  it('no feeder makes a file’s noise; the strip that records does', () => {
    const of = (each: Session, id: string) => evaluated(each, id).noise.filter(({ name }) => name === 'word-length')
    expect(of(session, 'stream')).toHaveLength(1)
    const grouped = valid({
      ...twoMixes(),
      gear: [
        ...twoMixes().gear,
        { id: 'host', kind: 'fader', name: 'Host', place: 'host', arithmetic: 'float', specs: {} },
      ],
      strips: [
        ...twoMixes().strips.map((each) => (each.id === 'stream' ? { ...each, feeds: [{ to: 'mix' }] } : each)),
        { id: 'mix', name: 'Mix', kind: 'bus', stages: [{ id: 'm1', gear: 'host' }] },
      ],
    })
    expect([of(grouped, 'stream').length, of(grouped, 'mix').length]).toEqual([0, 1])
  })
  it('a fader moves what is taken behind it, and not what is taken before it', () => {
    const down = applyChanges(session, [{ strip: 'alto', stage: 'a3', setting: 'fader', to: db(-12) }])
    const brought = (each: Session) => evaluated(each, 'stream').sum!.brought.find((one) => one.strip === 'alto')!
    expect(brought(session).average - brought(down).average).toBeCloseTo(12, 9)
    const pre = applyChanges(down, [{ do: 'feed', strip: 'alto', to: 'stream', set: { tap: 'pre' } }])
    expect(brought(pre).average).toBeCloseTo(brought(session).average, 9)
    expect(brought(pre).noise!).toBeCloseTo(brought(session).noise!, 2)
  })
  it('clipping of a feeder is carried with strip and stage', () => {
    const hot = applyChanges(session, [{ strip: 'player', stage: 'p2', setting: 'gain', to: db(20) }])
    const loud = applyChanges(hot, [{ strip: 'player', stage: 'p2', setting: 'fader', to: db(10) }])
    expect(evaluated(loud, 'stream').points[0]?.carriesClipping).toEqual({ strip: 'player', stage: 'p2' })
  })
  it('one sound by two ways adds in amplitude: the stream into itself by a group', () => {
    const file = structuredClone(twoMixes())
    file.gear.push({ ...file.gear.find(({ id }) => id === 'group'), id: 'sub', name: 'Sub' })
    file.strips[0]!.feeds = [{ to: 'sub' }, { to: 'stream' }]
    file.strips[1]!.feeds = []
    file.strips[2]!.feeds = []
    file.strips.push({
      id: 'sub',
      name: 'Sub',
      kind: 'bus',
      stages: [{ id: 'x1', gear: 'sub', settings: { gain: 0 } }],
      feeds: [{ to: 'stream' }],
    })
    const twice = valid(file)
    const once = withoutFeed(twice, 'alto', 'sub')
    const [a, b] = [evaluated(once, 'stream'), evaluated(twice, 'stream')]
    expect(b.sum!.average - a.sum!.average).toBeCloseTo(6.02, 2)
    // Its noise comes by both ways too, and is one noise; nothing else of the alto’s is in the sum.
    const alto = (each: typeof a) => each.noise.find((one) => one.strip === 'alto' && one.name === 'thermal')!
    expect(alto(b).level - alto(a).level).toBeCloseTo(6.02, 2)
  })
  it('without a feeder nothing is known of it, and it says so', () => {
    const bare = removeStrip(removeStrip(withoutFeed(session, 'alto', 'room'), 'bass'), 'player')
    const room = evaluated(bare, 'room')
    expect([room.points, room.noise, room.sum, room.tightest]).toEqual([[], [], null, null])
    expect(codes(bare, 'room')).toEqual(['bus-unfed'])
    expect(verdict(bare, strip(bare, 'room'), room).headroom.headline).toBe('Nothing feeds this bus')
    expect(JSON.stringify(planSession(bare))).not.toContain('NaN')
  })
})

describe('only what changed is evaluated again', () => {
  const session = valid(twoMixes())
  it('the strip, and what it feeds; everything else is the same object', () => {
    const before = evaluateFrom(null, session)
    const changed = applyChanges(session, [{ strip: 'player', stage: 'p2', setting: 'gain', to: db(3) }])
    const after = evaluateFrom(before, changed)
    const same = after.appraisal.strips.filter((each, i) => each === before.appraisal.strips[i]).map(({ id }) => id)
    expect(same).toEqual(['alto', 'bass'])
  })
  it('gives what evaluating the whole gives, whatever is changed (60 generated edits)', () => {
    const next = seeded(20261127)
    let now = session
    let chained = evaluateFrom(null, now)
    const pick = <T>(all: readonly T[]): T => all[Math.floor(next() * all.length)] as T
    for (let i = 0; i < 60; i++) {
      const each = pick(now.strips)
      const feed = feedsOf(each)[0]
      const stage = each.stages.find(({ settings }) => settings.gain !== undefined)
      const change: Change | null =
        next() < 0.4 && feed
          ? { do: 'feed', strip: each.id, to: feed.to, set: { gain: db(Math.round(-20 * next())) } }
          : stage
            ? { strip: each.id, stage: stage.id, setting: 'gain', to: db(Math.round(10 * next())) }
            : null
      now = change ? applyChanges(now, [change]) : now
      if (next() < 0.1) now = { ...now, room: { ...now.room } }
      chained = evaluateFrom(chained, now)
      expect(JSON.stringify(chained.evaluation), `edit ${i}`).toBe(JSON.stringify(evaluateSession(now)))
    }
  })
  it('a device, a port, a name or 48 V that changed makes everything new', () => {
    expect(unchanged(session, { ...session, gear: [...session.gear] })).toBeNull()
    const renamed = {
      ...session,
      strips: session.strips.map((each) => (each.id === 'alto' ? { ...each, name: 'Al' } : each)),
    }
    expect(unchanged(session, renamed)).toBeNull()
    expect(unchanged(session, session)?.size).toBe(5)
  })
})

describe('the plan of a desk', () => {
  const session = valid(twoMixes())
  const planned = (each: Session) => {
    const { settings } = planSession(each)
    return applySettings(
      each,
      settings.map(({ strip: id, stage, setting, to }) => ({ strip: id, stage, setting, to: db(to) })),
    )
  }
  it('every channel to its mark at PFL: the loudest peak at +4 dBu', () => {
    const rows = mixRows(planned(session), evaluateSession(planned(session)))
    for (const id of ['alto', 'bass', 'player']) {
      const pfl = rows.find((row) => row.strip.id === id)?.pfl?.peak ?? NaN
      expect(pfl, id).toBeLessThanOrEqual(0.01)
      expect(pfl, id).toBeGreaterThan(-0.2)
    }
  })
  it('the gain of a row is the head gain that PFL sets, with the zero mark it is read against', () => {
    const alto = (each: Session) =>
      mixRows(each, evaluateSession(each)).find(({ strip }) => strip.id === 'alto') as MixRow
    const head = planned(session)
      .strips.find(({ id }) => id === 'alto')
      ?.stages.find(({ gear }) => session.gear.find(({ id }) => id === gear)?.kind === 'desk-channel')
    expect(alto(planned(session)).control).toMatchObject({ stage: head?.id, setting: 'gain', isFader: false })
    // A direct input behind it has a gain of its own, that PFL does not look at.
    const direct = startSession('own', 'Own', { what: 'many', names: 'Alto' })
    const [row] = mixRows(direct, evaluateSession(direct))
    expect(row?.input?.port).toBe('line1')
    expect(row?.control?.stage).toBe(direct.strips[0]?.stages.at(-2)?.id)
    const zeroed = (specs: object, more: object = {}): Session => ({
      ...session,
      gear: session.gear.map((item) =>
        item.kind === 'desk-channel' ? ({ ...item, ...more, specs: { ...item.specs, ...specs } } as typeof item) : item,
      ),
    })
    expect(alto(zeroed({ zero: 6 })).pfl).toMatchObject({ zero: 6, assumed: false })
    expect(alto(zeroed({ zero: undefined })).pfl).toMatchObject({ zero: 4, assumed: true })
    expect(alto(zeroed({ zero: 0 }, { assumed: ['zero'] })).pfl).toMatchObject({ zero: 0, assumed: true })
  })
  it('one fader moved touches no gain', () => {
    const gains = (each: Session) =>
      planSession(each).strips.map(({ gains: all }) =>
        all.filter(({ setting }) => setting === 'gain').map(({ value }) => value),
      )
    const mixed = applyChanges(session, [{ strip: 'bass', stage: 'b3', setting: 'fader', to: db(-17) }])
    const channels = (each: Session) => gains(each).slice(0, 3)
    expect(channels(mixed)).toEqual(channels(session))
    expect(planSession(mixed).settings.some(({ strip: id, setting }) => id === 'bass' && setting === 'fader')).toBe(
      false,
    )
  })
  it('group faders at zero, the interface behind them by the likely peak of the sum; twice changes nothing', () => {
    const file = structuredClone(twoMixes())
    const [input] = file.gear.find(({ id }) => id === 'unit')!.inputs as { specs: object }[]
    Object.assign(input!.specs, { fullScale: 24 })
    const off = applyChanges(valid(file), [{ strip: 'stream', stage: 's1', setting: 'gain', to: db(-9) }])
    const set = planned(off)
    expect(strip(set, 'stream').stages[0]?.settings.gain).toBe(0)
    const peak = evaluated(set, 'stream').points[1]!.peak
    expect(peak).toBeLessThanOrEqual(-12)
    expect(peak).toBeGreaterThan(-18)
    expect(planSession(set).settings).toEqual([])
  })
  it('too many for the sum: says whom to bring down, and the fix does it', () => {
    const loud = applyChanges(session, [
      { strip: 'player', stage: 'p2', setting: 'gain', to: db(14) },
      { do: 'feed', strip: 'player', to: 'room', set: { gain: db(4) } },
    ])
    const finding = evaluated(loud, 'room').findings.find(({ code }) => code === 'sum-too-hot')!
    expect(finding.message).toContain('are left')
    expect(finding.action).toContain('“Player”')
    const fixed = applyChanges(loud, finding.changes ?? [])
    expect(codes(fixed, 'room')).not.toContain('sum-too-hot')
    expect(evaluated(fixed, 'room').points[0]!.headroom).toBeGreaterThanOrEqual(6)
    // A level that can be set, and the same in the words.
    const { gain } = feedsOf(strip(fixed, 'player')).find(({ to }) => to === 'room')!
    expect(gain).toBe(Math.round(10 * gain) / 10)
    expect(finding.action).toContain(`down by ${formatDecimal(4 - gain, 1)} dB, to ${formatDecimal(gain, 1)} dB.`)
    const hot = applyChanges(session, [{ do: 'feed', strip: 'player', to: 'room', set: { gain: db(16) } }])
    expect(planSession(hot).strips.find((each) => each.strip === 'room')?.notes[0]).toContain('Bring “Player” down by')
  })
  it('equally loud where strips leave before the fader: by their sends, at levels that can be set', () => {
    const before = applyChanges(
      session,
      ['alto', 'bass', 'player'].map((id) => ({ do: 'feed', strip: id, to: 'stream', set: { tap: 'pre' } })),
    )
    const { changes } = equalise(before, 'stream', 'fader')
    const sends = changes.flatMap((change) => ('do' in change && change.do === 'feed' ? [change.set.gain ?? NaN] : []))
    expect(sends.length).toBeGreaterThan(0)
    expect(sends).toEqual(sends.map((gain) => Math.round(10 * gain) / 10))
  })
  it('equally loud by fader, by gain: within half a decibel, the gains or the faders untouched', () => {
    for (const by of ['fader', 'gain'] as const) {
      const { changes, left } = equalise(session, 'stream', by)
      const after = applyChanges(session, changes)
      const levels = evaluated(after, 'stream').sum!.brought.map(({ average }) => average)
      expect(Math.max(...levels) - Math.min(...levels), by).toBeLessThan(0.5)
      expect(left).toEqual([])
      const other = by === 'fader' ? 'gain' : 'fader'
      const kept = (each: Session) => each.strips.flatMap(({ stages }) => stages.map(({ settings }) => settings[other]))
      expect(kept(after)).toEqual(kept(session))
    }
  })
})

describe('loudspeakers, feedback, streams', () => {
  const session = valid(twoMixes())
  it('a microphone too near: stop, and lowering what costs most fixes it', () => {
    const near = {
      ...session,
      room: { ...session.room, layout: { ...session.room.layout!, microphoneToLoudspeaker: 0.4 as never } },
    }
    const finding = evaluated(near, 'room').findings.find(({ code }) => code === 'feedback-margin')!
    expect(finding.severity).toBe('stop')
    expect(finding.message).toContain('2 open microphones')
    const fixed = applyChanges(near, finding.changes ?? [])
    expect(evaluated(fixed, 'room').feedback!.margin!).toBeGreaterThanOrEqual(3)
  })
  it('without the distance it says that it does not know', () => {
    expect(codes({ ...session, room: {} }, 'room')).toContain('feedback-unknown')
    expect(evaluated({ ...session, room: {} }, 'room').feedback?.margin).toBeNull()
  })
  it('loud for an audience: the caution, beside the order of power', () => {
    const loud = applyChanges(session, [{ strip: 'room', stage: 'r2', setting: 'distance', to: 1 as never }])
    expect(codes(loud, 'room')).toEqual(expect.arrayContaining(['audience-level', 'power-order']))
    expect(codes(session, 'room')).not.toContain('audience-level')
  })
  it('subwoofer first, tops to match, each with what it should give', () => {
    const file = structuredClone(twoMixes())
    file.gear.push({
      id: 'sub',
      kind: 'loudspeaker',
      name: 'Sub',
      band: 'sub',
      specs: { sensitivity: 103, maxSpl: 126, gainMin: -20, gainMax: 6 },
    })
    file.strips.push({
      id: 'low',
      name: 'Low',
      kind: 'bus',
      stages: [{ id: 'l1', gear: 'sub', settings: { gain: 0, distance: 5 } }],
    })
    file.strips[2]!.feeds = [{ to: 'room' }, { to: 'low', tap: 'pre' }]
    const both = valid(file)
    const settings = loudspeakerSettings(both, evaluateSession(both), 80)
    expect(settings.map(({ bus }) => bus.id)).toEqual(['low', 'room'])
    for (const { bus, control, to } of settings) {
      const set = applyChanges(both, [{ strip: bus.id, stage: control!.stage, setting: control!.setting, to: db(to!) }])
      expect(evaluated(set, bus.id).points.at(-1)!.average).toBeCloseTo(80, 6)
    }
    // By hand, boxes: peak +0.68 dBu, 19.3 dB under the maximum input; their knob ends 6 dB up.
    const short = (wanted: number) =>
      loudspeakerSettings(both, evaluateSession(both), wanted).map(({ short: why }) => why)
    expect([short(98), short(109)]).toEqual([
      ['range', 'range'],
      ['limit', 'limit'],
    ])
  })
  it('a stream off its loudness: the gain that reaches it is offered where there is one', () => {
    const file = structuredClone(twoMixes())
    file.gear.push({
      id: 'host',
      kind: 'fader',
      name: 'Host fader',
      place: 'host',
      arithmetic: 'float',
      specs: { gainMin: -60, gainMax: 20 },
    })
    file.strips[3]!.stages = [
      ...(file.strips[3]!.stages as object[]).slice(0, 2),
      { id: 's2b', gear: 'host', settings: { gain: 0 } },
      { id: 's3', gear: 'limiter' },
    ]
    const quiet = valid(file)
    const finding = evaluated(quiet, 'stream').findings.find(({ code }) => code === 'stream-loudness')!
    const fixed = applyChanges(quiet, finding.changes ?? [])
    expect(evaluated(fixed, 'stream').stream?.loudness).toBeCloseTo(-16, 0)
    expect(codes(fixed, 'stream')).not.toContain('stream-loudness')
    const hot = applyChanges(quiet, [{ strip: 'stream', stage: 's2b', setting: 'gain', to: db(20) }])
    const { stream } = evaluated(hot, 'stream')
    // By hand: peak −12.43 + 20 = 7.57 into a ceiling of −2.
    expect(stream?.reduction.peak).toBeCloseTo(9.57, 1)
    expect(codes(hot, 'stream')).toContain('limiter-works')
  })
})

describe('busses come and go', () => {
  const session = valid(twoMixes())
  it.each(Object.keys(busUses) as (keyof typeof busUses)[])(
    'a new %s is one that can be read, and can be fed or says why not',
    (use) => {
      const more = addBus(session, use)
      const bus = more.strips.at(-1)!
      expect(readSession(JSON.parse(JSON.stringify(more))).ok).toBe(true)
      const from = feedFrom(more, strip(more, 'alto'), bus)
      expect(from).toBe(use === 'stream' ? null : undefined)
    },
  )
  it('a circle is not offered', () => {
    const more = addBus(session, 'group')
    const group = more.strips.at(-1)!
    const fed = applyChanges(more, [{ do: 'feed', strip: group.id, to: 'stream', set: {} }])
    expect(feedFrom(fed, strip(fed, 'stream'), strip(fed, group.id))).toBeNull()
  })
  it('a copied strip keeps its feeds; a deleted bus takes the feeds into it along', () => {
    const copied = copyStrip(session, 'bass')
    expect(feedsOf(copied.strips.at(-1)!).map(({ to, gain }) => [to, gain])).toEqual([
      ['stream', -2],
      ['room', -10],
    ])
    const from = applyChanges(session, [{ do: 'feed', strip: 'bass', to: 'room', set: { from: 'b3' } }])
    expect(feedsOf(copyStrip(from, 'bass').strips.at(-1)!)[1]?.from).toBe(
      copyStrip(from, 'bass').strips.at(-1)!.stages[2]?.id,
    )
    expect(feedsWith(session, 'room')).toEqual({ to: [], from: ['Alto', 'Bass', 'Player'] })
    const gone = removeStrip(session, 'room')
    expect(gone.strips.flatMap((each) => feedsOf(each).map(({ to }) => to))).toEqual(['stream', 'stream', 'stream'])
    expect(readSession(JSON.parse(JSON.stringify(gone))).ok).toBe(true)
  })
  it('a stage that a feed leaves from is taken out: the feed leaves from the one before it', () => {
    const file = structuredClone(twoMixes())
    file.strips[3]!.feeds = [{ to: 'room', from: 's1' }]
    file.gear.push({ ...file.gear.find(({ id }) => id === 'group'), id: 'master', name: 'Master' })
    file.strips[3]!.stages = [{ id: 's0', gear: 'master' }, ...(file.strips[3]!.stages as object[])]
    const less = applyChanges(valid(file), [{ do: 'remove', strip: 'stream', stage: 's1' }])
    expect(feedsOf(strip(less, 'stream'))[0]?.from).toBe('s0')
    expect(readSession(JSON.parse(JSON.stringify(less))).ok).toBe(true)
  })
  it('the last strip with a source stays', () => {
    const few = removeStrip(removeStrip(session, 'alto'), 'bass')
    expect(removeStrip(few, 'player')).toBe(few)
  })
  it('200 strips, most of them busses in a row, are read and evaluated', () => {
    const file = structuredClone(twoMixes())
    file.gear.push({ id: 'host', kind: 'fader', name: 'Host', place: 'desk', specs: {} })
    file.strips = file.strips.slice(0, 3).map((each) => ({ ...each, feeds: [{ to: 'bus-0' }] }))
    for (let i = 0; i < 197; i++)
      file.strips.push({
        id: `bus-${i}`,
        name: `Bus ${i}`,
        kind: 'bus',
        stages: [{ id: `x${i}`, gear: 'host', settings: { gain: 0 } }],
        ...(i < 196 && { feeds: [{ to: `bus-${i + 1}` }] }),
      })
    const long = valid(file)
    const last = evaluateSession(long).strips.at(-1)!
    expect(last.sum?.average).toBeCloseTo(evaluateSession(long).strips[3]!.sum!.average, 6)
  })
})
