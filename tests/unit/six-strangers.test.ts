import { describe, expect, it } from 'vitest'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { LiveMeter } from '#core/measure/live/live-meter'
import { SimulatedPerformer } from '#core/render/performer'
import type { Session } from '#core/session'
import {
  STRANGERS_FAULTS,
  scoreStrangers,
  strangersLanes,
  strangersSession,
  turnedBy,
} from '#core/trainer/six-strangers'
import { readOf, stateOf } from '#core/watch/state'
import type { Stranger } from '#core/watch/strangers'
import { performancesOf, putRight, strangersOf } from '#core/watch/strangers'
import { runs } from '../support/runs'

const RATE = 48_000

/** What the meters of all six show after some seconds. */
function heard(session: Session, strangers: readonly Stranger[], seed: number) {
  const evaluation = evaluateSession(session)
  const lanes = strangersLanes(session)
  return performancesOf(lanes, strangers, evaluation).map((performance, i) => {
    const meter = new LiveMeter(RATE, 1)
    if (performance) {
      const performer = new SimulatedPerformer(RATE, performance, seed + 17 * i)
      performer.playing = 'loudest'
      for (let block = 0; block < 16; block++) meter.frames([performer.block(RATE / 4)])
    }
    const lane = lanes[i] as (typeof lanes)[number]
    const snapshot = meter.snapshot()
    return { lane, state: stateOf(lane, snapshot, false), read: readOf(lane, snapshot) }
  })
}

describe('six strangers', () => {
  it('begin with every gain fully down, and none in its window', () => {
    const session = strangersSession()
    const lanes = strangersLanes(session)
    expect(lanes).toHaveLength(6)
    expect(lanes.every(({ gainLeft }) => gainLeft.down === 0)).toBe(true)
    expect(new Set(lanes.map(({ channel }) => channel)).size).toBe(6)
    const strangers = strangersOf(lanes, 3, STRANGERS_FAULTS)
    expect(heard(session, strangers, 3).filter(({ state }) => state === 'in-window')).toEqual([])
    expect(strangers.filter(({ fault }) => fault === 'swapped')).toHaveLength(2)
  })

  it('can all be set up by their meters alone, once the floor was looked at', () => {
    for (let seed = 1; seed <= runs(4); seed++) {
      let session = strangersSession()
      let strangers = strangersOf(strangersLanes(session), seed, STRANGERS_FAULTS)
      for (const fault of STRANGERS_FAULTS) strangers = putRight(strangers, fault)
      let now = heard(session, strangers, seed)
      for (let round = 0; round < 6 && now.some(({ state }) => state !== 'in-window'); round++) {
        for (const { lane, read, state } of now) {
          if (state === 'in-window') continue
          const aim = lane.window?.aim ?? -18
          session = turnedBy(session, lane.strip, read === null ? 20 : Math.round(aim - read))
        }
        now = heard(session, strangers, seed)
      }
      expect(
        now.map(({ state }) => state),
        `seed ${seed}`,
      ).toEqual(Array(6).fill('in-window'))
    }
  })

  it('turns a gain no further than it goes', () => {
    const session = strangersSession()
    const [first] = strangersLanes(session)
    const strip = first?.strip ?? ''
    expect(turnedBy(session, strip, -6)).toEqual(session)
    expect(strangersLanes(turnedBy(session, strip, 500))[0]?.gainLeft.up).toBe(0)
    expect(turnedBy(session, 'nobody', 6)).toBe(session)
  })

  it('scores what is left undone, and the time over four minutes', () => {
    const all = Array(6).fill('in-window') as 'in-window'[]
    expect(scoreStrangers({ states: all, faultsLeft: 0, idleLooks: 0, seconds: 240 })).toEqual({
      points: 100,
      good: true,
      because: [],
    })
    // 12 for an input, 10 for a fault, 4 for a look, 20 for a minute over: 46.
    const some = scoreStrangers({ states: [...all.slice(1), 'hot'], faultsLeft: 1, idleLooks: 1, seconds: 300 })
    expect(some.points).toBe(54)
    expect(some.good).toBe(false)
    expect(some.because).toEqual([
      '1 input outside the window: −12',
      '1 fault not found: −10',
      '1 look for nothing: −4',
      '60 s over four minutes: −20',
    ])
    expect(scoreStrangers({ states: Array(6).fill('silent'), faultsLeft: 3, idleLooks: 9, seconds: 999 }).points).toBe(
      0,
    )
  })
})
