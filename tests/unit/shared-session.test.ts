import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyChanges } from '#core/edits'
import { gainControls } from '#core/chain/gain-control'
import { stagesOf } from '#core/resolved/resolve-session'
import type { Session } from '#core/session'
import { nowOf, saidOf } from '#core/shared-session/live'
import { join, joinMine } from '#core/shared-session/met'
import { OwnSteps } from '#core/shared-session/own-steps'
import type { Presence } from '#core/shared-session/presence'
import { leading } from '#core/shared-session/presence'
import { runSheet, withTick } from '#core/soundcheck/run-sheet'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { demoSession } from '#demo/index'
import type { LiveSnapshot } from '#core/measure/live/live-meter'
import type { WatchReadings } from '#core/watch/inference'
import { Guest, Opener, openRoom } from '../support/room'
import { runs } from '../support/runs'

/** All gains of a session that a hand can turn. */
const turnable = (session: Session) =>
  session.strips.flatMap((strip) =>
    stagesOf(session, strip).flatMap((stage) =>
      gainControls(stage).map(({ setting, range }) => ({ strip: strip.id, stage: stage.id, setting, range })),
    ),
  )
const GAINS = turnable(demoSession())
const turn = (at: number, by: number) => (session: Session) => {
  const gain = GAINS[at % GAINS.length]
  if (!gain) throw new Error('No gain there.')
  const { gainMin, gainMax } = gain.range
  const to = Math.round(gainMin + (by % 1) * (gainMax - gainMin))
  return applyChanges(session, [{ strip: gain.strip, stage: gain.stage, setting: gain.setting, to }])
}
const valueAt = (session: Session | null, at: number) => {
  const gain = GAINS[at % GAINS.length]
  return session?.strips.find(({ id }) => id === gain?.strip)?.stages.find(({ id }) => id === gain?.stage)?.settings[
    gain?.setting ?? 'gain'
  ]
}
const rename = (name: string) => (session: Session) => ({ ...session, name })

describe('one session on two devices', () => {
  it('comes to the guest as it stands, and changes go both ways', async () => {
    const { net, opener, guest } = await openRoom()
    expect(guest.isJoined).toBe(true)
    expect(guest.session).toEqual(opener.session)
    opener.edit(turn(0, 0.25))
    await net.settle()
    expect(valueAt(guest.session, 0)).toBe(valueAt(opener.session, 0))
    guest.edit(turn(3, 0.75))
    expect(guest.isSettled).toBe(false)
    await net.settle()
    expect(opener.session).toEqual(guest.session)
    expect(guest.isSettled).toBe(true)
  })

  it('takes both of two changes made at once, also of one strip, and ticks of both', async () => {
    const { net, opener, guest } = await openRoom()
    const [first, second] = runSheet(opener.session, evaluateSession(opener.session))
    opener.edit((session) => withTick(rename('From the desk')(session), first as never, '2026-12-02T10:00:00Z'))
    guest.edit((session) => withTick(turn(1, 0.4)(session), second as never, '2026-12-02T10:00:01Z'))
    await net.settle()
    expect(opener.session.name).toBe('From the desk')
    expect(opener.session.soundcheck?.ticks?.map(({ step }) => step).sort()).toEqual(
      [first?.id, second?.id].sort() as string[],
    )
    expect(guest.session).toEqual(opener.session)
    expect(guest.met).toEqual([])
  })

  it('keeps the opener’s where both set the same gain, says so, and sets the other after all when asked', async () => {
    const { net, opener, guest } = await openRoom()
    opener.edit(turn(0, 0.2))
    guest.edit(turn(0, 0.9))
    const [kept, other] = [valueAt(opener.session, 0), valueAt(guest.session, 0)]
    await net.settle()
    expect(valueAt(opener.session, 0)).toBe(kept)
    expect(guest.session).toEqual(opener.session)
    expect(guest.met).toHaveLength(1)
    expect(guest.met[0]?.of).toBe('Narrator')
    expect(guest.met[0]?.kept).toContain(String(kept))
    expect(guest.met[0]?.other).toContain(String(other))
    const { mine } = guest
    guest.edit((session) => joinMine(mine?.base as Session, mine?.session as Session, session) ?? session)
    await net.settle()
    expect(valueAt(opener.session, 0)).toBe(other)
    expect(guest.session).toEqual(opener.session)
  })

  it('goes on turning while earlier turns are under way: the last one stands', async () => {
    const { net, opener, guest } = await openRoom()
    guest.edit(turn(0, 0.3))
    net.step()
    guest.edit(turn(0, 0.5))
    guest.edit(turn(0, 0.7))
    const last = valueAt(guest.session, 0)
    await net.settle()
    expect(valueAt(guest.session, 0)).toBe(last)
    expect(opener.session).toEqual(guest.session)
    expect(guest.met).toEqual([])
  })

  it('shows a drag on all other devices while it moves, and ends it with the device', async () => {
    const { net, opener, guests } = await openRoom(2)
    const [one, two] = guests as [Guest, Guest]
    const dragged = turn(2, 0.8)(one.session as Session)
    one.guest.drags(dragged)
    await net.settle()
    expect(valueAt(opener.preview, 2)).toBe(valueAt(dragged, 2))
    expect(valueAt(two.preview, 2)).toBe(valueAt(dragged, 2))
    expect(one.preview).toBeNull()
    one.cut()
    await net.settle()
    expect(opener.preview).toBeNull()
    opener.leader.previewed(turn(1, 0.1)(opener.session))
    await net.settle()
    expect(valueAt(two.preview, 1)).toBe(valueAt(turn(1, 0.1)(opener.session), 1))
    opener.leader.previewed(null)
    await net.settle()
    expect(two.preview).toBeNull()
  })

  it('lets eyes look and not change, and says so', async () => {
    const { net, opener, guest } = await openRoom()
    opener.leader.setRole(opener.members[1]?.number ?? 0, 'eyes')
    await net.settle()
    expect(guest.role).toBe('eyes')
    const before = opener.session
    guest.guest.drags(turn(0, 0.9)(guest.session as Session))
    guest.guest.restartPassage()
    guest.edit(turn(0, 0.9))
    expect(await logOf(guest, [{ take: 1 }], net)).toBe('This device may look, not change.')
    await net.settle()
    expect(opener.session).toBe(before)
    expect(opener.preview).toBeNull()
    expect(opener.log).toEqual([])
    expect(opener.restarts).toBe(0)
    expect(guest.refused).toEqual(['This device may look, not change.'])
    expect(guest.session).toEqual(opener.session)
    opener.edit(turn(1, 0.6))
    await net.settle()
    expect(guest.session).toEqual(opener.session)
  })

  it('passes what the inputs show, the log, who is there and where, and the end', async () => {
    const { net, opener, guest } = await openRoom()
    opener.leader.shows({ gauge: { source: 'none' as const, processed: [], strip: null, snapshot: null } })
    guest.guest.restartPassage()
    guest.at = {
      place: 'soundcheck',
      strip: 'cello',
      stage: null,
      page: 'inputs',
      step: null,
      follows: false,
      moved: 0,
    }
    guest.guest.moved()
    expect(await logOf(guest, [{ take: 'one' }], net)).toBeNull()
    await net.settle()
    expect(guest.live).toEqual([{ gauge: { source: 'none' as const, processed: [], strip: null, snapshot: null } }])
    expect(opener.restarts).toBe(1)
    expect(opener.log).toEqual([{ take: 'one' }])
    expect(guest.log).toEqual([{ take: 'one' }])
    expect(opener.members.map(({ name, role, at }) => [name, role, at?.strip])).toEqual([
      ['Recorder', 'leader', undefined],
      ['Phone 1', 'hands', 'cello'],
    ])
    expect(guest.members).toEqual(opener.members)
    opener.leader.setAway(true)
    opener.leader.end()
    await net.settle()
    expect([guest.isAway, guest.isEnded]).toEqual([true, true])
  })

  it('goes on apart when the connection is lost, and merges with a list of what met for both', async () => {
    const { net, opener, guest } = await openRoom()
    guest.cut()
    await net.settle()
    expect(opener.members).toHaveLength(1)
    guest.edit(turn(0, 0.9))
    guest.edit(turn(4, 0.5))
    opener.edit(turn(0, 0.1))
    opener.edit(rename('Meanwhile'))
    const [kept, mine] = [valueAt(opener.session, 0), valueAt(guest.session, 4)]
    guest.connect()
    await net.settle()
    expect(guest.session).toEqual(opener.session)
    expect(opener.session.name).toBe('Meanwhile')
    expect(valueAt(opener.session, 0)).toBe(kept)
    expect(valueAt(opener.session, 4)).toBe(mine)
    expect(guest.met).toHaveLength(1)
    expect(opener.met).toEqual(guest.met)
  })

  it('loses no change that was sent and not answered when the connection was lost', async () => {
    const { net, opener, guest } = await openRoom()
    guest.edit(turn(0, 0.9))
    const mine = valueAt(guest.session, 0)
    net.step()
    opener.cut()
    await net.settle()
    expect(guest.isJoined).toBe(false)
    opener.connect()
    await net.settle()
    expect(guest.isJoined).toBe(true)
    expect(valueAt(opener.session, 0)).toBe(mine)
  })

  it('greets an opener whose page was reloaded, with what was changed meanwhile', async () => {
    const { net, opener, guest } = await openRoom()
    opener.cut()
    await net.settle()
    guest.edit(turn(5, 0.7))
    const again = new Opener(net, opener.room, opener.session)
    again.connect()
    await net.settle()
    expect(again.session).toEqual(guest.session)
    expect(valueAt(again.session, 5)).toBe(valueAt(guest.session, 5))
  })

  it('refuses what is no session', async () => {
    const { net, opener, guest } = await openRoom()
    const before = opener.session
    guest.edit((session) => ({ ...session, strips: [] }))
    await net.settle()
    expect(opener.session).toBe(before)
    expect(guest.refused).toHaveLength(1)
    expect(guest.session).toEqual(opener.session)
  })

  it('comes to one session on all devices, whatever the order in which messages arrive and connections break', async () => {
    const action = fc.record({
      who: fc.integer({ min: 0, max: 2 }),
      does: fc.constantFrom('turn', 'turn', 'turn', 'rename', 'cut', 'connect', 'wait', 'wait'),
      at: fc.nat({ max: 6 }),
      by: fc.double({ min: 0, max: 0.99, noNaN: true }),
    })
    await fc.assert(
      fc.asyncProperty(fc.array(action, { maxLength: 40 }), fc.infiniteStream(fc.nat()), async (actions, numbers) => {
        const { net, opener, guests } = await openRoom(2)
        const choose = (count: number) => (numbers.next().value as number) % count
        const devices = [opener, ...guests]
        const connected = [true, true, true]
        for (const { who, does, at, by } of actions) {
          const device = devices[who] as Opener | Guest
          if (does === 'turn') device.edit(turn(at, by))
          else if (does === 'rename') device.edit(rename(`Named ${at}`))
          else if (does === 'wait') for (let i = 0; i < at; i++) net.step(choose)
          else if (does === 'cut' && connected[who]) {
            device.cut()
            connected[who] = false
          } else if (does === 'connect' && !connected[who]) {
            device.connect()
            connected[who] = true
          }
          await Promise.resolve()
        }
        devices.forEach((device, i) => connected[i] || device.connect())
        await net.settle(choose)
        for (const guest of guests) {
          expect(guest.isJoined).toBe(true)
          expect(guest.session).toEqual(opener.session)
          expect(guest.isSettled).toBe(true)
          expect(guest.refused).toEqual([])
        }
      }),
      { numRuns: runs(60) },
    )
  })
})

describe('a guest that has missed something', () => {
  it('greets anew when it is told to, and goes on', async () => {
    const { net, opener, guest } = await openRoom()
    guest.guest.greet()
    await net.settle()
    expect([guest.isJoined, guest.losses]).toEqual([true, 1])
    guest.edit(turn(1, 0.4))
    opener.edit(rename('After'))
    await net.settle()
    expect(guest.session).toEqual(opener.session)
    expect(valueAt(opener.session, 1)).toBe(valueAt(turn(1, 0.4)(demoSession()), 1))
  })

  it('greets anew when nothing opens any more, since a message was lost on the way', async () => {
    const { net, opener, guest } = await openRoom()
    const { passed } = guest
    guest.passed = () => {
      guest.passed = passed
    }
    for (let i = 0; i < 8; i++) {
      opener.edit(rename(`Named ${i}`))
      await net.settle()
      expect(guest.losses).toBe(0)
    }
    opener.edit(rename('Named last'))
    await net.settle()
    expect([guest.isJoined, guest.losses]).toEqual([true, 1])
    expect(guest.session).toEqual(opener.session)
  })

  it('gets the whole session where it is a hundred revisions behind, and its change with it', async () => {
    const { net, opener, guest } = await openRoom()
    guest.edit(turn(1, 0.8))
    const mine = valueAt(guest.session, 1)
    for (let i = 0; i <= 100; i++) opener.edit(rename(`Named ${i}`))
    await net.settle()
    expect(opener.session.name).toBe('Named 100')
    expect(valueAt(opener.session, 1)).toBe(mine)
    expect(guest.session).toEqual(opener.session)
    expect([guest.isSettled, guest.losses]).toEqual([true, 0])
  })

  it('is told where what it changed apart does not fit any more, and has what stands', async () => {
    const demo = demoSession()
    const [strip] = demo.strips
    const used = demo.gear.find(({ id }) => id === strip?.stages[0]?.gear)
    if (!used) throw new Error('No such gear.')
    const { net, opener, guest } = await openRoom(1, { ...demo, gear: [...demo.gear, { ...used, id: 'spare' }] })
    guest.cut()
    await net.settle()
    opener.edit((session) => ({ ...session, gear: session.gear.filter(({ id }) => id !== 'spare') }))
    guest.edit((session) => ({
      ...session,
      strips: session.strips.map((each, i) =>
        i === 0
          ? { ...each, stages: each.stages.map((stage, at) => (at === 0 ? { ...stage, gear: 'spare' } : stage)) }
          : each,
      ),
    }))
    guest.connect()
    await net.settle()
    expect(guest.refused).toHaveLength(1)
    expect(guest.refused[0]).toMatch(/^What was changed here meanwhile does not fit the session now\. /)
    expect(guest.session).toEqual(opener.session)
    expect(opener.session.gear.some(({ id }) => id === 'spare')).toBe(false)
  })

  it('keeps what it changed behind a change that was not taken', async () => {
    const { net, opener, guest } = await openRoom()
    guest.edit((session) => ({ ...session, strips: [] }))
    guest.session = opener.session
    guest.edit(rename('Behind it'))
    await net.settle()
    expect(opener.session.name).toBe('Behind it')
    expect(guest.session).toEqual(opener.session)
  })

  it('knows that nobody takes its entries of the log where the connection goes first', async () => {
    const { net, guest } = await openRoom()
    const answer = guest.guest.addToLog([{ take: 1 }])
    guest.cut()
    await net.settle()
    expect(await answer).toBeUndefined()
    expect(await guest.guest.addToLog([{ take: 2 }])).toBeUndefined()
  })
})

describe('the opener', () => {
  it('tells three phones of one name apart', async () => {
    const { opener } = await openRoom(3, demoSession(), () => 'Phone')
    expect(opener.members.map(({ name }) => name)).toEqual(['Recorder', 'Phone', 'Phone 2', 'Phone 3'])
  })

  it('welcomes with what stands, also where that was changed before anybody looked', async () => {
    const { net, opener, guest } = await openRoom()
    expect([guest.isAway, opener.refusals]).toEqual([false, 0])
    opener.session = rename('Quietly')(opener.session)
    opener.leader.setAway(true)
    opener.leader.setAway(true)
    const late = new Guest(opener, 'Late')
    late.connect()
    await net.settle()
    expect(late.session?.name).toBe('Quietly')
    expect(guest.session?.name).toBe('Quietly')
    expect(late.isAway).toBe(true)
  })

  it('goes on changing after it has taken a guest’s change', async () => {
    const { net, opener, guest } = await openRoom()
    guest.edit(turn(1, 0.3))
    await net.settle()
    opener.edit(rename('After it'))
    await net.settle()
    expect(guest.session?.name).toBe('After it')
  })

  it('has nobody there while its own connection is lost', async () => {
    const { opener, guest } = await openRoom()
    guest.guest.drags(turn(2, 0.8)(guest.session as Session))
    opener.cut()
    expect(opener.members.map(({ name }) => name)).toEqual(['Recorder'])
    expect(opener.leader.hasGuests).toBe(false)
    expect(opener.preview).toBeNull()
  })

  it('is not stopped by a stranger’s frames, nor is a guest', async () => {
    const { net, opener, guest } = await openRoom()
    const eve = new Guest(opener, 'Eve')
    eve.joined = eve.came = () => {}
    eve.connect()
    await net.settle()
    const noise = (stream: number) => Uint8Array.from({ length: 60 }, (_, i) => (i === 0 ? stream : i))
    for (let i = 0; i < 12; i++) for (const stream of [0, 1, 3, 4]) eve.pass(0, noise(stream))
    await net.settle()
    expect(opener.refusals).toBe(48)
    expect([guest.losses, guest.isJoined]).toEqual([0, true])
    opener.edit(rename('All the same'))
    await net.settle()
    expect(guest.session?.name).toBe('All the same')
  })

  it('shows no drag that is no session', async () => {
    const { net, opener, guest } = await openRoom()
    const dragged = turn(2, 0.8)(guest.session as Session)
    guest.guest.drags(dragged)
    await net.settle()
    expect(opener.preview).not.toBeNull()
    guest.guest.drags({ ...dragged, strips: [] })
    await net.settle()
    expect(opener.preview).toBeNull()
  })
})

describe('what met', () => {
  it('is told in words of its own, beside the settings that did', () => {
    const start = demoSession()
    const both = (name: string, by: number) => rename(name)(turn(0, by)(start))
    const joined = join(start, both('Mine', 0.9), both('Theirs', 0.2))
    expect(joined.ok && joined.met.map(({ of, what }) => [of, what])).toEqual([
      ['Narrator', expect.stringContaining('ain')],
      ['Session', 'Name'],
    ])
    const named = join(start, rename('Mine')(start), rename('Theirs')(start))
    expect(named.ok && named.met).toEqual([
      { of: 'Session', what: 'Name', kept: 'the session owner’s', other: 'the other device’s' },
    ])
    const gains = join(start, turn(0, 0.9)(start), turn(0, 0.2)(start))
    expect(gains.ok && gains.met.map(({ of }) => of)).toEqual(['Narrator'])
    const same = join(start, turn(0, 0.9)(start), turn(0, 0.9)(start))
    expect(same.ok && same.met).toEqual([])
  })
})

describe('levels on their way to other devices', () => {
  it('keep a tenth of a decibel, and silence stays silence', () => {
    const level = (peak: number | null, average: number | null) => nowOf({ now: { peak, average } } as LiveSnapshot)
    expect(level(-12.3456, null)).toEqual({ peak: -12.3, average: null })
    expect(level(0, -0.06)).toEqual({ peak: 0, average: -0.1 })
  })

  it('come with what is common to all of them', () => {
    const said = (common: string | null) => saidOf({ lanes: [], common } as unknown as WatchReadings, [], { n3: 4 })
    expect(said('All are 3 dB lower.')).toEqual({
      lanes: [],
      common: 'All are 3 dB lower.',
      notices: [],
      moved: { n3: 4 },
    })
    expect(said(null).common).toBeNull()
    expect(saidOf(null, [], {})).toEqual({ lanes: [], common: null, notices: [], moved: {} })
  })
})

async function logOf(guest: Guest, entries: unknown[], net: Guest['net']) {
  const answer = guest.guest.addToLog(entries)
  await net.settle()
  return answer
}

describe('following', () => {
  const at = (moved: number): Presence => ({
    place: 'soundcheck',
    strip: 'cello',
    stage: null,
    page: 'steps',
    step: `step-${moved}`,
    follows: true,
    moved,
  })
  const device = (number: number, moved: number) => ({ number, name: 'x', role: 'hands' as const, at: at(moved) })
  it('goes where a hand moved last, and of two at once to the same one on all devices', () => {
    const members = [device(1, 3), device(2, 5), device(255, 4)]
    expect(leading(members, { number: 1, moved: 3 })?.moved).toBe(5)
    expect(leading(members, { number: 2, moved: 5 })).toBeNull()
    expect(leading(members, { number: 1, moved: 6 })).toBeNull()
    const tie = [device(1, 5), device(2, 5), device(255, 5)]
    expect(leading(tie, { number: 1, moved: 5 })).toBeNull()
    for (const number of [2, 255]) expect(leading(tie, { number, moved: 5 })).not.toBeNull()
    expect(leading([], { number: 1, moved: 0 })).toBeNull()
  })
})

describe('undo of one’s own', () => {
  it('takes back its own change and leaves those of others', () => {
    const [start, own] = [demoSession(), new OwnSteps()]
    const mine = turn(0, 0.9)(start)
    own.add('Gain', start, mine)
    const theirs = turn(3, 0.2)(mine)
    const undone = own.undo(theirs)
    expect(undone?.ok && valueAt(undone.session, 0)).toBe(valueAt(start, 0))
    expect(undone?.ok && valueAt(undone.session, 3)).toBe(valueAt(theirs, 3))
    const again = undone?.ok ? own.redo(undone.session) : null
    expect(again?.ok && again.session).toEqual(theirs)
    expect(own.redo(theirs)).toBeNull()
  })

  it('says so where another device changed the same thing since, and goes on to the step before', () => {
    const [start, own] = [demoSession(), new OwnSteps()]
    const [one, two] = [turn(3, 0.9)(start), turn(0, 0.9)(turn(3, 0.9)(start))]
    own.add('First', start, one)
    own.add('Second', one, two)
    const theirs = turn(0, 0.3)(two)
    const refused = own.undo(theirs)
    expect(refused?.ok === false && refused.why).toMatch(/“Second” was not undone: another device/)
    const undone = own.undo(theirs)
    expect(undone?.ok && valueAt(undone.session, 3)).toBe(valueAt(start, 3))
    expect(undone?.ok && valueAt(undone.session, 0)).toBe(valueAt(theirs, 0))
  })

  it('goes back two hundred steps and no farther', () => {
    const [start, own] = [demoSession(), new OwnSteps()]
    let session = start
    for (let i = 0; i <= 200; i++) {
      const next = rename(`Named ${i}`)(session)
      own.add(`Name ${i}`, session, next)
      session = next
    }
    for (let undone = own.undo(session); undone; undone = own.undo(session)) {
      if (!undone.ok) throw new Error(undone.why)
      session = undone.session
    }
    expect(session.name).toBe('Named 0')
  })

  it('says so where without its change there is no session any more', () => {
    const [start, own] = [demoSession(), new OwnSteps()]
    const spare = { ...start.gear[0], id: 'spare' } as Session['gear'][number]
    const mine = { ...start, gear: [...start.gear, spare] }
    own.add('Spare', start, mine)
    const using = (session: Session): Session => ({
      ...session,
      strips: session.strips.map((strip) => ({
        ...strip,
        stages: strip.stages.map((stage) => (stage.gear === start.gear[0]?.id ? { ...stage, gear: 'spare' } : stage)),
      })),
    })
    const refused = own.undo(using(mine))
    expect(refused?.ok === false && refused.why).toMatch(/^“Spare” was not undone/)
    expect(own.rebase(mine, start, using(mine))).toEqual(using(mine))
  })

  it('takes a gesture back as one step', () => {
    const [start, own] = [demoSession(), new OwnSteps()]
    const held = [0.2, 0.4, 0.6].reduce((session, by) => {
      const next = turn(0, by)(session)
      own.add('Gain', session, next, 'hold')
      return next
    }, start)
    const undone = own.undo(held)
    expect(undone?.ok && undone.session).toEqual(start)
    expect(own.undoLabel).toBeNull()
    expect(own.redoLabel).toBe('Gain')
  })
})
