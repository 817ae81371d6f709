import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyChanges } from '#core/edits'
import { gainControls } from '#core/chain/gain-control'
import { stagesOf } from '#core/resolved/resolve-session'
import type { Session } from '#core/session'
import { joinMine } from '#core/shared-session/met'
import { OwnSteps } from '#core/shared-session/own-steps'
import type { Presence } from '#core/shared-session/presence'
import { leading } from '#core/shared-session/presence'
import { runSheet, withTick } from '#core/soundcheck/run-sheet'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { demoSession } from '#demo/index'
import type { Guest } from '../support/room'
import { Opener, openRoom } from '../support/room'
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
