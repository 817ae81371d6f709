import { describe, expect, it } from 'vitest'
import { applyChanges } from '#core/edits'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import type { HeardChannel } from '#core/measure/heard/listen'
import { listenToChannel } from '#core/measure/heard/listen'
import { LISTENS, LiveMemory } from '#core/measure/live/live-memory'
import { LiveMeter } from '#core/measure/live/live-meter'
import type { LiveSnapshot } from '#core/measure/live/live-meter'
import { withEffects } from '#core/render/effects'
import type { Effects } from '#core/render/effects'
import { SimulatedPerformer } from '#core/render/performer'
import { programmeOf } from '#core/render/programme'
import type { Session } from '#core/session'
import { whiteNoise } from '#core/signals/generate'
import { stagesOf } from '#core/resolved/resolve-session'
import { recorderChannel } from '#core/soundcheck/plug-steps'
import { turnWords } from '#core/soundcheck/turn-words'
import { GainFollowing } from '#core/watch/follows-gain'
import { inferWatch, offeredTurns, readingOfLane } from '#core/watch/inference'
import type { Lane } from '#core/watch/lane'
import { lanesOf } from '#core/watch/lane'
import type { Watched } from '#core/watch/notices'
import { INVERTED, noticesOf } from '#core/watch/notices'
import { readOf, stateOf } from '#core/watch/state'
import { performancesOf, putRight, strangersOf } from '#core/watch/strangers'
import type { Stranger, StrangerFault } from '#core/watch/strangers'
import { live, nowOf, roundedSnapshot, saidOf } from '#core/shared-session/live'
import type { LaneNow } from '#core/watch/turn-guide'
import { controlOf, turnGuide, turnedStrip } from '#core/watch/turn-guide'
import { TakeWatch } from '#core/watch/take-watch'
import { watchVerdict } from '#core/watch/verdict'
import { demoSession } from '../../demo'
import { runs } from '../support/runs'

const RATE = 48_000
const session = demoSession()
const evaluation = evaluateSession(session)
const lanes = lanesOf(session, evaluation)
const laneOf = (strip: string) => lanes.find((each) => each.strip === strip) as Lane

/** A passage as a meter tells it. */
const passage = (more: Partial<LiveSnapshot['passage']> = {}): LiveSnapshot => ({
  seconds: 20,
  now: { peak: null, average: null },
  passage: {
    seconds: 20,
    peak: -15,
    peakAgo: 12,
    truePeak: -15,
    average: -30,
    loudest: -26,
    crest: 11,
    clippedRuns: 0,
    integrated: -25,
    ...more,
  },
  momentary: -25,
  shortTerm: -25,
  floor: -80,
})
/** Every lane as planned, but for some. */
const asPlanned = (off: Record<string, number> = {}) =>
  lanes.map(({ strip, expected }) => {
    const more = off[strip] ?? 0
    return passage({ peak: expected.peak + more, loudest: expected.average + more })
  })

describe('lanes', () => {
  it('stand at the recorder’s own numbers, in its order', () => {
    expect(lanes.map(({ name, channel }) => [name, channel + 1])).toEqual([
      ['Narrator', 1],
      ['Cello', 2],
      ['Harmonium', 4],
      ['Tide, recorder', 5],
    ])
  })
  it('are the channels of the run sheet', () => {
    for (const { strip, channel } of lanes) {
      const own = session.strips.find(({ id }) => id === strip)
      expect(channel + 1).toBe(own && recorderChannel({ stages: stagesOf(session, own) }))
    }
  })
  it('expect what the chain gives at the converter, and say the gain as a hand sets it', () => {
    const { stage, expected, floor, window, gain } = laneOf('narrator')
    const point = evaluation.strips.find(({ id }) => id === 'narrator')?.points.find((each) => each.stage === stage)
    expect(expected).toEqual({ peak: point?.peak, average: point?.average })
    expect(floor).toBe(point?.noise)
    expect(window).toEqual({ low: -18, high: -12, aim: -15, reads: 'peak' })
    expect(gain).toBe('35 dB (knob about a quarter past one)')
  })
})

describe('how an input stands', () => {
  const lane = laneOf('narrator')
  it.each([
    ['in-window', { peak: -15 }],
    ['in-window', { peak: -18 }],
    ['in-window', { peak: -12 }],
    ['low', { peak: -18.1 }],
    ['hot', { peak: -11.9 }],
    ['clipped', { peak: -15, clippedRuns: 1 }],
    ['clipped', { peak: -0.05 }],
    ['silent', { peak: null }],
    ['silent', { peak: (lane.floor as number) + 19 }],
    ['low', { peak: (lane.floor as number) + 21 }],
    ['waiting', { peak: null, seconds: 2.9 }],
  ] as const)('%s with %o', (state, more) => {
    expect(stateOf(lane, passage(more), false)).toBe(state)
  })
  it('a fault goes before any gain, also where it clips', () => {
    expect(stateOf(lane, passage({ peak: 0, clippedRuns: 9 }), true)).toBe('faulty')
  })
  it('is read as its target reads: peak, loudest passage, or the peak that the take will bring', () => {
    const reads = (kind: 'peak' | 'average' | 'surge-peak') => ({
      ...lane,
      window: { low: 0, high: 0, aim: 0, reads: kind },
    })
    expect(readOf(reads('peak'), passage())).toBe(-15)
    expect(readOf(reads('average'), passage())).toBe(-26)
    expect(readOf({ ...reads('surge-peak'), surge: 6 }, passage())).toBe(-9)
  })
})

describe('what all inputs say together', () => {
  it('as planned nothing is common, nothing is a fault', () => {
    const { lanes: read, common } = inferWatch(session, lanes, asPlanned())
    expect(read.map(({ inferred }) => Math.abs(inferred.difference ?? 1) < 0.01 && !inferred.fault)).toEqual(
      lanes.map(() => true),
    )
    expect(common).toBeNull()
  })
  it('one strip that is louder is laid to its own source, and its gain is offered', () => {
    const told = inferWatch(session, lanes, asPlanned({ narrator: 7 }))
    const own = told.lanes.find(({ strip }) => strip === 'narrator')
    expect(own?.inferred.says).toContain('7.0 dB louder than planned. Most likely the source')
    const changes = offeredTurns(told).filter(({ strip }) => strip === 'narrator')
    const turned = applyChanges(session, changes)
    const after = lanesOf(turned, evaluateSession(turned)).find(({ strip }) => strip === 'narrator') as Lane
    // Played as before, it then lies in its window.
    if (changes.length > 0) {
      expect(after.expected.peak + 7).toBeGreaterThan(-18)
      expect(after.expected.peak + 7).toBeLessThan(-12)
      expect(turnWords(session, changes[0] as (typeof changes)[number])?.from).toBe('35')
    } else expect(stateOf(laneOf('narrator'), asPlanned({ narrator: 7 })[0] as LiveSnapshot, false)).toBe('in-window')
  })
  it('all of one unit louder by as much: what is common to them is named', () => {
    const all = Object.fromEntries(lanes.map(({ strip }) => [strip, 6]))
    const none = inferWatch(session, lanes, asPlanned({ narrator: 6 })).common
    const { common } = inferWatch(session, lanes, asPlanned(all))
    expect(none).toBeNull()
    expect(common).toContain('All 4 inputs are about 6.0 dB louder than planned.')
    const apart = { narrator: 2, cello: 6, harmonium: 8, tide: 6 }
    expect(inferWatch(session, lanes, asPlanned(apart)).common).toBeNull()
  })
  it('25 dB off is a fault, of which nothing is turned', () => {
    const { lanes: read } = inferWatch(session, lanes, asPlanned({ cello: -25 }))
    const own = read.find(({ strip }) => strip === 'cello')
    expect(own?.inferred.fault).toBe(true)
    expect(own?.inferred.changes).toEqual([])
  })
  it('what was read of the same meter before is of another passage, and stays out', () => {
    const { strip, stage } = laneOf('narrator')
    const before: Session = {
      ...session,
      soundcheck: {
        readings: [{ id: 'r', strip, stage, reads: 'peak', value: -26, unit: 'dBFS', by: 'typed', expected: -19 }],
      },
    } as unknown as Session
    const { lanes: read } = inferWatch(before, lanes, asPlanned())
    expect(read.find((each) => each.strip === strip)?.inferred.contradicts).toBeNull()
  })
  it('silence is no reading', () => {
    expect(readingOfLane(laneOf('narrator'), passage({ peak: null }))).toBeNull()
    expect(readingOfLane(laneOf('narrator'), passage({ peak: -15.004 }))).toEqual({ reads: 'peak', value: -15 })
  })
})

describe('the verdict over all inputs', () => {
  const states = (snapshots: LiveSnapshot[]) =>
    lanes.map((lane, i) => stateOf(lane, snapshots[i] as LiveSnapshot, false))
  const verdictOf = (snapshots: LiveSnapshot[]) => watchVerdict(lanes, snapshots, states(snapshots), null)
  const at = (...peaks: (number | null)[]) => peaks.map((peak) => passage({ peak }))
  it('counts what needs a turn and what does not', () => {
    expect(verdictOf(at(-15, -30, -5, null)).turns).toEqual({
      headline: '2 of 4 inputs need a turn',
      detail: '1 in the window, 1 silent',
    })
    expect(verdictOf(at(-15, -15, -15, -15)).turns.headline).toBe('All inputs in their window')
  })
  it('names the least headroom, and that it clipped', () => {
    expect(verdictOf(at(-15, -30, -5, null)).headroom.headline).toBe('Least headroom 5.0 dB: Harmonium')
    expect(verdictOf(at(-15, 0, -5, null)).headroom).toEqual({
      headline: 'Least headroom 0.0 dB: Cello',
      detail: 'it clipped in this passage',
    })
  })
  it('says whether the loudest passage is still growing', () => {
    const growing = [...at(-15, -15, -15), passage({ peakAgo: 3 })]
    expect(verdictOf(growing).listening).toEqual({
      headline: 'Listening for 20 s',
      detail: 'the loudest passage is still growing',
    })
    expect(verdictOf(at(-15, -15, -15, -15)).listening.detail).toBe('no new peak for 12 s')
    expect(verdictOf(at(null, null, null, null)).listening.detail).toBe('nothing has sounded yet')
  })
})

describe('a take that is watched', () => {
  const strips = [laneOf('narrator'), laneOf('cello')]
  const at = (narrator: number, cello: number, clippedRuns = 0) => [
    passage({ peak: narrator }),
    passage({ peak: cello, clippedRuns }),
  ]
  const names = (strip: string) => strips.find((each) => each.strip === strip)?.name ?? ''

  it('keeps the least headroom of each strip, and when it clipped', () => {
    const watching = new TakeWatch()
    watching.next(1, strips, at(-20, -9))
    watching.next(42, strips, at(-6.25, -1, 2))
    watching.next(42.6, strips, at(-6.25, -1, 3))
    watching.next(75, strips, at(-30, 0, 4))
    expect(watching.summary(names)).toEqual({
      peak: 0,
      clippedRuns: 4,
      note: 'Cello clipped 4 times, at 0:42, 1:15; Narrator 6.3 dB headroom.',
    })
  })
  it('goes on counting where the peaks were restarted', () => {
    const watching = new TakeWatch()
    watching.next(5, strips, at(-20, -1, 3))
    watching.next(6, strips, at(-20, -9, 0))
    watching.next(7, strips, at(-20, -1, 2))
    expect(watching.summary(names)).toMatchObject({ clippedRuns: 5, peak: -1 })
  })
  it('tells five times of many, and nothing of silence', () => {
    const watching = new TakeWatch()
    expect(watching.summary(names)).toEqual({})
    for (let second = 1; second <= 9; second++) watching.next(second, strips, at(-20, -1, second))
    expect(watching.summary(names).note).toContain('at 0:01, 0:02, 0:03, 0:04, 0:05 and 4 more;')
  })
})

describe('the last ten seconds', () => {
  it('are handed out channel by channel, in their order, also after the memory went round', () => {
    const memory = new LiveMemory(1000, 2)
    expect(memory.hand()).toBeNull()
    let n = 0
    for (let block = 0; block < 50; block++) {
      const samples = Float64Array.from({ length: 317 }, () => n++)
      memory.frames([samples, samples.map((x) => -x)])
    }
    const [first, second, third] = [memory.hand(), memory.hand(), memory.hand()]
    expect([first?.channel, second?.channel, third?.channel]).toEqual([0, 1, 0])
    expect(first?.samples).toHaveLength(LISTENS * 1000)
    expect(first?.samples.every((x, i) => x === n - LISTENS * 1000 + i)).toBe(true)
    expect(second?.samples.at(-1)).toBe(1 - n)
    memory.forget()
    expect(memory.hand()).toBeNull()
  })
  it('one signal on two channels is told, turned over too; two sources are not', () => {
    const memory = new LiveMemory(RATE, 4)
    const voice = programmeOf('voice', RATE, 3, { average: -20, peak: -8 }, 3)
    const other = programmeOf('voice', RATE, 3, { average: -20, peak: -8 }, 4)
    memory.frames([voice, voice.map((x) => -0.5 * x), other, new Float64Array(voice.length)])
    const found = memory.alike(INVERTED)
    expect(found.map(({ channels }) => channels)).toEqual([[0, 1]])
    expect(found[0]?.likeness).toBeCloseTo(-1, 9)
  })
})

describe('what nobody asked for', () => {
  const quiet = (snapshots = asPlanned()): Watched => ({
    session,
    evaluation,
    lanes,
    snapshots,
    states: lanes.map((lane, i) => stateOf(lane, snapshots[i] as LiveSnapshot, false)),
    heard: lanes.map(() => null),
    alike: [],
    spare: [],
  })
  const ids = (watched: Watched) => noticesOf(watched).map(({ id }) => id)

  it('nothing, where all is as planned', () => {
    expect(ids(quiet())).toEqual([])
  })
  it('silence, with the likeliest cause of this chain, and where there is sound that nobody has a strip for', () => {
    const silent = asPlanned().map((each, i) => (i === 1 ? passage({ peak: null }) : each))
    const [notice] = noticesOf({ ...quiet(silent), spare: [6] })
    expect(notice?.id).toBe('silent cello')
    expect(notice?.says).toMatch(/^Silent\. Likeliest: .+\. Channel 7 has sound and no strip\.$/)
    expect(notice?.faults).toEqual({ symptom: 'nothing', answers: {} })
    // Both of a bank, for one switch gives it to both.
    const unpowered = applyChanges(
      session,
      ['narrator', 'cello'].map((strip) => ({
        strip,
        stage: laneOf(strip).stage,
        setting: 'phantom',
        to: false,
      })) as unknown as Parameters<typeof applyChanges>[1],
    )
    const all = quiet(lanes.map(() => passage({ peak: null })))
    const off = noticesOf({ ...all, session: unpowered, evaluation: evaluateSession(unpowered) })
    expect(off.find(({ id }) => id === 'silent narrator')?.says).toContain('48 V')
  })
  it('one signal on two inputs; of a pair only where it is turned over', () => {
    const alike = (likeness: number) => ({ ...quiet(), alike: [{ channels: [0, 1] as [number, number], likeness }] })
    const paired = { ...session, pairs: [{ left: 'narrator', right: 'cello', monitoring: 'panned' as const }] }
    expect(ids(alike(0.99))).toEqual(['one narrator cello'])
    expect(ids(alike(0.9))).toEqual([])
    expect(ids({ ...alike(0.99), session: paired })).toEqual([])
    expect(ids({ ...alike(-0.9), session: paired })).toEqual(['turned narrator cello'])
  })

  it('an offset of what clips is not said: it comes from clipping on one side', () => {
    const heard = (clipped: HeardChannel['clipped']): HeardChannel => ({
      peak: 0,
      clipped,
      dropouts: { count: 0, kinds: { gap: 0, repeat: 0, jump: 0 }, every: null, first: [] },
      dc: -50,
      comb: null,
      hum: null,
      floor: null,
      tone: null,
    })
    expect(heardAt('cello', heard(null))).toEqual(['offset cello'])
    expect(heardAt('cello', heard({ count: 9, level: 0 }))).toEqual([])
  })

  const plantedIn: [string, Effects, string][] = [
    ['hum', { hum: { mains: 50, level: -55, lines: 'odd' } }, 'hum'],
    ['gaps', { dropouts: { kind: 'gap', perSecond: 1, regular: false, frames: 64 } }, 'gaps'],
    ['an offset', { offset: -40 }, 'offset'],
    ['the sound twice', { twice: { delayMs: 12, difference: -4 } }, 'comb'],
  ]
  /** A phrase, then a pause of nothing but a floor. */
  const played = (seed: number) => {
    const phrase = programmeOf('voice', RATE, 7.5, { average: -26, peak: -14 }, seed)
    const out = whiteNoise(RATE, LISTENS, -88, seed)
    phrase.forEach((x, i) => (out[i] = (out[i] as number) + x))
    return out
  }
  const heardAt = (strip: string, heard: HeardChannel) =>
    ids({ ...quiet(), heard: lanes.map((lane) => (lane.strip === strip ? heard : null)) })
  it.each(plantedIn)('%s that was planted is heard on its strip and on no other', (_, effects, id) => {
    for (let seed = 1; seed <= runs(6); seed++) {
      const [channel] = withEffects(played(seed), RATE, effects, seed)
      expect(heardAt('cello', listenToChannel(channel, RATE)), `seed ${seed}`).toContain(`${id} cello`)
      expect(heardAt('cello', listenToChannel(played(seed), RATE)), `clean, seed ${seed}`).not.toContain(`${id} cello`)
    }
  })
})

describe('simulated performers', () => {
  /** Levels are the same at any rate, and a low one takes a third of the time. */
  const LOW_RATE = 16_000
  /** Everybody plays the loudest passage, each on the own channel. */
  const hear = (strangers: readonly Stranger[], of: Session = session) => {
    const now = evaluateSession(of)
    const own = lanesOf(of, now)
    return performancesOf(own, strangers, now).map((performance, i) => {
      const meter = new LiveMeter(LOW_RATE, 1)
      if (!performance) throw new Error('nobody plays')
      const performer = new SimulatedPerformer(LOW_RATE, performance, 5 + i)
      performer.playing = 'loudest'
      meter.frames([performer.block(13 * LOW_RATE)])
      return meter.snapshot()
    })
  }
  const watchedWith = (strangers: readonly Stranger[]) => {
    const snapshots = hear(strangers)
    const readings = inferWatch(session, lanes, snapshots)
    const isFault = (strip: string) => readings.lanes.some((each) => each.strip === strip && each.inferred.fault)
    const states = lanes.map((lane, i) => stateOf(lane, snapshots[i] as LiveSnapshot, isFault(lane.strip)))
    return { session, evaluation, lanes, snapshots, states, heard: lanes.map(() => null), alike: [], spare: [] }
  }

  it('are the same for a seed, others for another, and within what nobody knows of a source', () => {
    expect(strangersOf(lanes, 3, ['pad'])).toEqual(strangersOf(lanes, 3, ['pad']))
    expect(strangersOf(lanes, 3, [])).not.toEqual(strangersOf(lanes, 4, []))
    for (let seed = 1; seed < 50; seed++)
      for (const { louder } of strangersOf(lanes, seed, [])) expect(Math.abs(louder)).toBeLessThanOrEqual(10)
  })
  it('play as loud as they truly are with the gains as they are set', () => {
    const strangers = strangersOf(lanes, 7, [])
    hear(strangers).forEach(({ passage: { peak } }, i) => {
      const { louder, crest } = strangers[i] as Stranger
      const truth = (lanes[i] as Lane).expected.peak + louder + crest
      if (truth < -1) expect(Math.abs((peak ?? 0) - truth), lanes[i]?.name).toBeLessThan(0.5)
    })
  })
  it.each<[StrangerFault, (strip: string) => string]>([
    ['dead', () => 'silent'],
    ['pad', () => 'faulty'],
  ])('%s is seen for what it is, and is right once it was looked at', (fault, wanted) => {
    for (let seed = 1; seed <= runs(3); seed++) {
      const strangers = strangersOf(lanes, seed, [fault])
      const at = strangers.findIndex((each) => each.fault === fault)
      const off = fault === 'pad' ? -20 + (strangers[at]?.louder ?? 0) : -99
      const { states } = watchedWith(strangers)
      // A pad on somebody who plays much louder is a difference that a source may have.
      if (off < -20) expect(states[at], `seed ${seed}`).toBe(wanted(strangers[at]?.strip ?? ''))
      expect(putRight(strangers, fault).every((each) => each.fault === null)).toBe(true)
    }
  })
  it('swapped cables read what the other should, and that is said of them and of nobody else', () => {
    const base = strangersOf(lanes, 1, []).map((each) => ({ ...each, louder: 0, crest: 0 }))
    const swapped = base.map((each) =>
      each.strip === 'narrator'
        ? { ...each, fault: 'swapped' as const, comesInOn: 'tide' }
        : each.strip === 'tide'
          ? { ...each, fault: 'swapped' as const, comesInOn: 'narrator' }
          : each,
    )
    const strips = lanes.map(({ strip }) => strip)
    expect(strips).toContain('tide')
    const said = noticesOf(watchedWith(swapped)).filter(({ id }) => id.startsWith('swapped'))
    expect(said.map(({ id }) => id)).toEqual(['swapped narrator tide'])
    expect(noticesOf(watchedWith(base)).filter(({ id }) => id.startsWith('swapped'))).toEqual([])
    expect(noticesOf(watchedWith(putRight(swapped, 'swapped'))).filter(({ id }) => id.startsWith('swapped'))).toEqual(
      [],
    )
  })
  it('from strangers to everybody in the window: what is offered leads there in a few rounds', () => {
    for (let seed = 1; seed <= runs(3); seed++) {
      let now = session
      const strangers = strangersOf(lanes, seed, [])
      for (let round = 0; round < 4; round++) {
        const own = lanesOf(now, evaluateSession(now))
        now = applyChanges(now, offeredTurns(inferWatch(now, own, hear(strangers, now))))
      }
      const own = lanesOf(now, evaluateSession(now))
      const after = hear(strangers, now)
      own.forEach((lane, i) => {
        const state = stateOf(lane, after[i] as LiveSnapshot, false)
        // A gain at its top has nothing left to give.
        if (state === 'low') expect(lane.gainLeft.up, `seed ${seed}: ${lane.name}`).toBe(0)
        else expect(state, `seed ${seed}: ${lane.name}`).toBe('in-window')
      })
    }
  })
})

describe('a level that follows no gain', () => {
  const [first, second] = [lanes[0] as Lane, lanes[1] as Lane]
  const turnedUp = (lane: Lane, by: number): Lane => ({
    ...lane,
    gainLeft: { up: lane.gainLeft.up - by, down: lane.gainLeft.down + by },
  })
  const at = (loudest: number, more: Partial<LiveSnapshot['passage']> = {}) =>
    passage({ loudest, peak: loudest + 10, ...more })
  /** What is said after a gain was turned and its level moved. */
  const after = (turned: number, moved: number, more: Partial<LiveSnapshot['passage']> = {}) => {
    const following = new GainFollowing()
    following.next([first], [at(-30)])
    following.next([turnedUp(first, turned)], [at(-30 + moved, more)])
    return following.notices([first])
  }

  it('is said with both figures, and opens Faults at levels that drift', () => {
    const [notice] = after(12, 1)
    expect(notice?.says).toBe(
      'The level does not follow the gain: 12.0 dB more gain, 1.0 dB more level. Look for automatic gain, “enhancements” or a limiter.',
    )
    expect(notice?.sure).toBeGreaterThan(0.6)
    expect(notice?.faults).toEqual({ symptom: 'level-drifts', answers: {} })
    expect(after(-12, 0.5)[0]?.says).toContain('12.0 dB less gain, 0.5 dB more level')
  })

  it('is not said of one that follows, of a small turn, before a passage has settled, or of what clips', () => {
    expect(after(12, 11)).toEqual([])
    expect(after(12, 6)).toEqual([])
    expect(after(2, 0)).toEqual([])
    expect(after(12, 1, { seconds: 5 })).toEqual([])
    expect(after(12, 1, { clippedRuns: 1 })).toEqual([])
  })

  it('is surer with each turn, and belongs to its own input', () => {
    const following = new GainFollowing()
    following.next([first, second], [at(-30), at(-30)])
    const sure = [6, 12, 18].map((gain) => {
      following.next([turnedUp(first, gain), turnedUp(second, gain)], [at(-29.5), at(-30 + gain)])
      return following.notices([first, second]).find(({ strip }) => strip === first.strip)?.sure ?? 0
    })
    expect(sure[0]).toBe(0)
    expect(sure[2]).toBeGreaterThan(sure[1] ?? 1)
    expect(following.notices([first, second]).map(({ strip }) => strip)).toEqual([first.strip])
  })

  it('is never said of simulated performers whose gains are turned, in fifty seeds', () => {
    for (let seed = 1; seed <= runs(50); seed++) {
      const following = new GainFollowing()
      for (const gain of [0, 6, -4, 9]) {
        const performance = { average: -36 + gain, peak: -24 + gain, surge: 0, noise: -90, clipsAt: 0 }
        const performer = new SimulatedPerformer(RATE, performance, seed)
        const meter = new LiveMeter(RATE, 1)
        for (let block = 0; block < 18; block++) meter.frames([performer.block(RATE / 2)])
        following.next([turnedUp(first, gain)], [meter.snapshot()])
      }
      expect(following.notices([first]), `seed ${seed}`).toEqual([])
    }
  })
})

describe('what other devices see', () => {
  it('holds all that the inputs show and say, in few characters', () => {
    const snapshots = asPlanned({ narrator: 7, harmonium: -9 }).map((each, i) =>
      i === 1 ? passage({ peak: null }) : each,
    )
    const readings = inferWatch(session, lanes, snapshots)
    const notices = noticesOf({
      session,
      evaluation,
      lanes,
      snapshots,
      states: lanes.map((lane, i) => stateOf(lane, snapshots[i] as LiveSnapshot, false)),
      heard: lanes.map(() => null),
      alike: [],
      spare: [6],
    })
    expect(readings.lanes.length + notices.length).toBeGreaterThan(3)
    const told = {
      inputs: {
        source: 'simulated',
        processed: [],
        channels: lanes.length,
        now: snapshots.map(nowOf),
        snapshots: snapshots.map(roundedSnapshot),
        said: saidOf(readings, notices, { cello: 2 }),
      },
    }
    const arrived = live.safeParse(JSON.parse(JSON.stringify(told)))
    expect(arrived.error?.issues ?? []).toEqual([])
    expect(arrived.data?.inputs?.said?.lanes.map(({ inferred }) => inferred.says)).toEqual(
      readings.lanes.map(({ inferred }) => inferred.says),
    )
    expect(offeredTurns(arrived.data?.inputs?.said as never)).toEqual(offeredTurns(readings))
    expect(JSON.stringify(told.inputs.now).length).toBeLessThan(60 * lanes.length)
  })
})

describe('a gain that a hand turns', () => {
  const columns = (peak: number | null) => Array.from({ length: 80 }, () => ({ peak, average: peak && peak - 12 }))
  const narrator = laneOf('narrator')
  const now = { asked: null, planned: null, held: null, isFaulty: false }
  const guideAt = (peak: number | null, more: Partial<LaneNow> = {}) =>
    turnGuide(session, narrator, { ...now, ...more }, columns(peak))
  const { aim = 0, low = 0, high = 0 } = narrator.window ?? {}

  it('is so far from its window as the level of now says, and right within it', () => {
    expect(guideAt(aim - 6)).toMatchObject({ state: 'up', says: '6 dB to go, up', level: aim - 6 })
    expect(guideAt(low - 0.1)?.state).toBe('up')
    expect(guideAt(low)?.says).toBe('Right: in its window.')
    expect(guideAt(high)?.state).toBe('right')
    expect(guideAt(high + 1)).toMatchObject({ state: 'down' })
    expect(guideAt(aim + 8)?.says).toBe('8 dB to go, down')
    expect(guideAt(aim - 6, { asked: 41, planned: 39 })?.wanted?.gain).toBe(41)
    expect(guideAt(aim, { planned: 39 })?.wanted).toBeNull()
  })
  it('is not turned up in a pause or a quiet passage, and not turned at all while something is wrong', () => {
    expect(guideAt(aim - 20, { held: aim })).toMatchObject({ state: 'unknown' })
    expect(guideAt(-78)?.says).toBe('Play the loudest passage.')
    expect(guideAt(aim - 20, { isFaulty: true, asked: 50, planned: 39 })).toMatchObject({
      state: 'unknown',
      says: 'Turn nothing yet: find the fault.',
      wanted: null,
    })
    expect(guideAt(aim + 20, { isFaulty: true })?.state).toBe('unknown')
  })
  it('is said to be right only where no peak was above the window, and forgets the level before it was turned', () => {
    expect(guideAt(aim, { held: high + 3 })).toMatchObject({ state: 'unknown' })
    const turnedDown = [...columns(high + 6), ...columns(aim)]
    expect(turnGuide(session, narrator, now, turnedDown)?.state).toBe('right')
  })
  it('is compared with the planned gain while nothing sounds, with its knob position', () => {
    const { value } = controlOf(session, narrator) ?? { value: 0 }
    expect(guideAt(null, { planned: value + 4 })).toMatchObject({ state: 'up', says: '4 dB to go, up', level: null })
    expect(guideAt(null, { planned: value + 4 })?.wanted?.words).toMatch(/^39 dB \(knob about .+\)$/)
    expect(guideAt(null, { planned: value })?.says).toBe('Set as wanted. Play the loudest passage.')
  })
  it('is known from a draft in which it alone stands otherwise', () => {
    const turn = (strip: string, to: number) => (given: Session) => {
      const lane = laneOf(strip)
      const control = controlOf(given, lane)
      return applyChanges(given, [{ strip, stage: control?.stage ?? '', setting: control?.setting ?? 'gain', to }])
    }
    expect(turnedStrip(session, turn('narrator', 40)(session))).toBe('narrator')
    expect(turnedStrip(session, session)).toBeNull()
    expect(turnedStrip(session, turn('cello', 20)(turn('narrator', 40)(session)))).toBeNull()
  })
})
