import { describe, expect, it } from 'vitest'
import { stagesOf } from '#core/resolved/resolve-session'
import { surgeUncertainty, windowOf } from '#core/uncertainty/window'
import { planSession } from '#core/plan/plan-session'
import type { Session } from '#core/session'
import { applySettings } from '#core/edits'
import { chain, interfaceWith, line, lineInput, micInput, microphone, preamp, voice } from '../support/chains'
import { example1, valid, withAt } from '../support/sessions'

const fader = (place: 'host' | 'desk', specs: object = {}) => ({ kind: 'fader', place, specs })
const processor = (domain: 'analogue' | 'digital', blocks: object[], specs: object = {}) => ({
  kind: 'processor',
  domain,
  blocks,
  specs,
})
const limiter = (ceiling: number) => processor('digital', [{ type: 'limiter', ceiling }])
const spoken = (settings: object, ...behind: { gear: Record<string, unknown>; settings?: object }[]) =>
  chain(
    [
      { gear: voice(), settings: { distance: 0.3 } },
      { gear: microphone() },
      { gear: interfaceWith(micInput({ gainStep: 1 })), port: 'in1', settings },
      ...behind,
    ],
    { version: 2, target: 'peaks-18-12' },
  )
const own = (session: Session) => {
  const plan = planSession(session)
  const [strip] = plan.strips
  const [evaluated] = plan.evaluation.strips
  if (!strip || !evaluated) throw new Error('no strip')
  return { ...strip, plan, points: evaluated.points }
}
const gainOf = (session: Session, stage: string) => own(session).gains.find((each) => each.stage === stage)?.value

describe('the target is read at the converter', () => {
  const alone = gainOf(spoken({ gain: 20 }), 's2')
  it.each([
    ['a host fader at −20', { gear: fader('host'), settings: { gain: -20 } }],
    ['a limiter in the host at −20', { gear: limiter(-20) }],
    ['a compressor in the host', { gear: processor('digital', [{ type: 'compressor', threshold: -40, ratio: 10 }]) }],
  ])('%s behind it changes nothing, and the converter does not clip', (_, behind) => {
    const found = own(spoken({ gain: 20 }, behind))
    expect(found.gains.find((each) => each.stage === 's2')?.value).toBe(alone)
    expect(found.points[2]?.headroom).toBeGreaterThan(11)
    expect(found.off).toBe(0)
    // The fader is for the mix, and stays.
    expect(found.plan.settings.every((each) => each.stage === 's2')).toBe(true)
  })
})

describe('a processor with a threshold', () => {
  const compressor = processor('analogue', [{ type: 'compressor', threshold: 0, ratio: 4 }], { maxInput: 24 })
  const session = (before: number, behind: number) =>
    chain(
      [
        { gear: line({ level: -30, noise: -110 }) },
        { gear: preamp(), settings: { gain: before } },
        { gear: compressor },
        { gear: preamp({ gainMin: -20, gainMax: 20, maxOutput: 24 }), settings: { gain: behind } },
        { gear: interfaceWith(lineInput({ gainMax: 0 })), port: 'in1' },
      ],
      { version: 2, target: 'peaks-18-12' },
    )
  it.each([20, 30, 38])('keeps the level that it was set to, with %i dB before it', (before) => {
    const found = own(session(before, 0))
    expect(found.gains.find((each) => each.stage === 's1')?.value).toBeCloseTo(before, 6)
    expect(found.off).toBe(0)
    expect(found.hiss?.lower ?? 0).toBeGreaterThanOrEqual(0)
  })
  it('shares the gains before it so that their sum stays and the first has as much as can be', () => {
    const found = own(
      chain(
        [
          { gear: line({ level: -50, noise: -120 }) },
          { gear: preamp(), settings: { gain: 10 } },
          { gear: preamp({ gainMin: -20, gainMax: 40 }), settings: { gain: 30 } },
          { gear: compressor },
          { gear: interfaceWith(lineInput({ gainMin: -20, gainMax: 40 })), port: 'in1', settings: { gain: 0 } },
        ],
        { version: 2, target: 'peaks-18-12' },
      ),
    )
    const [first, second] = ['s1', 's2'].map((stage) => found.gains.find((each) => each.stage === stage)?.value ?? 0)
    expect((first ?? 0) + (second ?? 0)).toBeCloseTo(40, 1)
    expect(first).toBeGreaterThan(30)
    expect(found.hiss?.lower).toBeGreaterThan(0)
  })
})

describe('reserve on the way: 10 dB over the peak, 3 dB over the surge', () => {
  /** A preamp of +20 dBu in front of an input that takes +40: what it is left with is the reserve alone. */
  const reserved = (surge: number) =>
    own(
      chain(
        [
          { gear: line({ level: -40, surge, crest: 13.0103, noise: -120 }) },
          { gear: preamp({ maxOutput: 20, outputImpedance: undefined, gainStep: 1 }) },
          { gear: preamp({ gainMin: -40, gainMax: 60, maxInput: 60, maxOutput: 60 }) },
          { gear: interfaceWith(lineInput({ gainMin: 0, gainMax: 0, fullScale: 24 })), port: 'in1' },
        ],
        { version: 2, target: 'peaks-12-6' },
      ),
    ).points[1]
  it('a surge of 3 dB: the 10 dB count', () => {
    const point = reserved(3)
    expect(point?.headroom).toBeGreaterThanOrEqual(10)
    expect(point?.headroom).toBeLessThan(11)
  })
  it('a surge of 12 dB: the 3 dB over it count', () => {
    const point = reserved(12)
    expect(point?.surgeHeadroom).toBeGreaterThanOrEqual(3)
    expect(point?.surgeHeadroom).toBeLessThan(4)
  })
})

it('a driven stage is left driven', () => {
  const session = chain(
    [
      { gear: line({ level: -20 }) },
      { gear: preamp({ maxOutput: 10 }), settings: { gain: 40 }, driven: true },
      { gear: interfaceWith(lineInput({ fullScale: 30 })), port: 'in1', settings: { gain: 0 } },
    ],
    { version: 2, target: 'peaks-18-12' },
  )
  const found = own(session)
  expect(found.gains.find((each) => each.stage === 's1')).toMatchObject({ value: 40 })
  expect(found.points[1]?.clipped).toBe(true)
  expect(found.off).toBe(0)
})

it('a fader of a desk rests at its zero mark, unless nothing else reaches', () => {
  const session = (level: number) =>
    chain(
      [
        { gear: line({ level, noise: -120 }) },
        { gear: preamp({ gainMax: 20 }), settings: { gain: 0 } },
        { gear: fader('desk', { gainMin: -60, gainMax: 10, maxInput: 24, maxOutput: 24 }), settings: { gain: -7 } },
        { gear: interfaceWith(lineInput({ gainMax: 0 })), port: 'in1' },
      ],
      { version: 2, target: 'peaks-18-12' },
    )
  expect(gainOf(session(-20), 's2')).toBe(0)
  expect(gainOf(session(-30), 's2')).toBeGreaterThan(0)
  expect(own(session(-30)).off).toBe(0)
})

it('a locked gain that is the cause is named as the cause', () => {
  const session = chain(
    [
      { gear: line({ level: -50, noise: -120 }) },
      { gear: preamp(), settings: { gain: 5 }, locked: ['gain'] },
      { gear: interfaceWith(lineInput()), port: 'in1' },
    ],
    { version: 2, target: 'peaks-18-12' },
  )
  const found = own(session)
  expect(found.off).toBeLessThan(0)
  expect(found.notes).toEqual([expect.stringMatching(/“Box 1” is locked at 5\.0 dB.*unlock it/)])
  expect(found.gains.find(({ stage }) => stage === 's1')?.reason).toBe('Locked.')
})

it('it never overdrives a stage to reach a target: what stays short is said', () => {
  const session = chain(
    [
      { gear: line({ level: -30, noise: -120 }) },
      { gear: preamp({ maxOutput: 0, gainStep: 1 }), settings: { gain: 0 } },
      { gear: interfaceWith(lineInput({ gainMin: 0, gainMax: 0, fullScale: 24 })), port: 'in1' },
    ],
    { version: 2, target: 'peaks-12-6' },
  )
  const found = own(session)
  expect(found.points[1]?.headroom).toBeGreaterThanOrEqual(10 - 1e-6)
  expect(found.off).toBeLessThan(0)
  expect(found.gains[0]?.reason).toContain('headroom')
})

describe('pairs', () => {
  const side = (level: number, more: object = {}, settings: object = {}) => ({ level, more, settings })
  type Side = ReturnType<typeof side>
  const pair = (left: Side, right: Side, locked?: string[], which = 1) => {
    const sides = [left, right]
    return valid({
      format: 'remetra.session',
      version: 2,
      id: 'pair',
      name: 'Pair',
      target: 'peaks-18-12',
      gear: sides.flatMap(({ level, more }, i) => [
        { id: `src${i}`, name: `Source ${i}`, ...line({ level, noise: -120 }) },
        { id: `pre${i}`, name: `Preamp ${i}`, ...preamp({ gainStep: 1, ...more }) },
        { id: `in${i}`, name: `Unit ${i}`, ...interfaceWith(lineInput({ gainMax: 0 })) },
      ]),
      strips: sides.map(({ settings }, i) => ({
        id: `strip${i}`,
        name: `Side ${i}`,
        stages: [
          { id: `a${i}`, gear: `src${i}` },
          { id: `b${i}`, gear: `pre${i}`, settings, ...(i === which && locked && { locked }) },
          { id: `c${i}`, gear: `in${i}`, port: 'in1' },
        ],
      })),
      pairs: [{ left: 'strip0', right: 'strip1' }],
    })
  }
  const values = (session: Session) =>
    planSession(session).strips.map(({ gains }) => gains.find((each) => each.stage.startsWith('b'))?.value)
  it('both get the gain of the louder side', () => {
    const [left, right] = values(pair(side(-30), side(-27)))
    expect(left).toBe(right)
    expect(right).toBe(values(pair(side(-27), side(-27)))[1])
  })
  it('each reads its own figures: the quieter side reads 3 dB lower', () => {
    const { evaluation } = planSession(pair(side(-30), side(-27)))
    const [left, right] = evaluation.strips.map(({ points }) => points.at(-1)?.peak ?? 0)
    expect((right ?? 0) - (left ?? 0)).toBeCloseTo(3, 6)
  })
  it('a locked side stays, and the other follows it', () => {
    const session = pair(side(-30, {}, { gain: 7 }), side(-27, {}, { gain: 11 }), ['gain'])
    expect(values(session)).toEqual([11, 11])
  })
  it('whichever side is locked, and though the other would stand lower by itself', () => {
    for (const which of [0, 1]) {
      const sides = [side(-30, {}, { gain: 11 }), side(-30, {}, { gain: 11 })] as const
      const quieter = sides.map((each, i) => (i === which ? { ...each, level: -33 } : each))
      expect(values(pair(quieter[0] as Side, quieter[1] as Side, ['gain'], which))).toEqual([11, 11])
    }
  })
  it('one that is locked between its steps stays there', () => {
    const session = pair(side(-30, {}, { gain: 7 }), side(-27, { gainStep: 4 }, { gain: 11 }), ['gain'])
    expect(values(session)[1]).toBe(11)
  })
  it('ranges that do not meet are said, with what to make up', () => {
    const session = pair(side(-30, { gainMin: 30, gainMax: 60 }), side(-27, { gainMin: 0, gainMax: 20 }))
    const { strips } = planSession(session)
    expect(values(session)).toEqual([30, 20])
    for (const { notes } of strips) expect(notes.join()).toMatch(/cannot be set alike.*30\.0 dB.*20\.0 dB.*10\.0 dB/)
  })
  it.each([
    ['alike', {}, {}],
    ['with steps that do not meet', { gainStep: 3 }, { gainMin: 1, gainStep: 3 }],
    ['one stepped, one free', { gainStep: 2 }, { gainMin: 0.013 }],
  ])('planned again it stays: %s', (_, left, right) => {
    const session = pair(side(-30, left), side(-27, right))
    const { settings } = planSession(session)
    expect(settings.length).toBeGreaterThan(0)
    expect(planSession(applySettings(session, settings as never)).settings).toEqual([])
  })
})

it('a side of a pair that was planned with just the common gains keeps its plan, and is planned so again', () => {
  const fullGain = { gainMin: -90, gainMax: 10, gainStep: 0 }
  const gear = (id: string, kind: string, rest: object) => ({ id, kind, name: id, ...rest })
  const stage = (id: string, settings: object = {}, rest: object = {}) => ({ id, gear: id, settings, ...rest })
  const session = valid({
    format: 'remetra.session',
    version: 2,
    id: 'apart',
    name: 'A voice and its playback',
    gear: [
      gear('voice', 'sound-source', { specs: { level: 30, crest: 3 } }),
      gear('mic', 'microphone', {
        principle: 'condenser',
        phantom: 'harmless',
        specs: { sensitivity: 0.5, impedance: 30 },
      }),
      gear('box', 'interface', {
        inputs: [{ id: 'in', type: 'mic', phantom: false, specs: { fullScale: 0, ein: -100, dynamicRange: 85 } }],
        outputs: [],
        direct: 'digital',
      }),
      gear('trim', 'processor', { domain: 'digital', blocks: [], specs: { gainMin: -0.001, gainMax: 0, gainStep: 0 } }),
      gear('player', 'playback', { specs: { level: 0, crest: 0 } }),
      gear('first', 'fader', { place: 'host', specs: fullGain }),
      gear('lead', 'link', { medium: 'optical', specs: {} }),
      gear('second', 'fader', { place: 'host', specs: fullGain }),
    ],
    strips: [
      {
        id: 'left',
        name: 'Left',
        stages: [
          stage('voice', { distance: 0.02 }),
          stage('mic'),
          stage('box', { gain: 0 }, { port: 'in' }),
          stage('trim', { gain: 0 }),
        ],
      },
      {
        id: 'right',
        name: 'Right',
        stages: [stage('player'), stage('first', { gain: 0 }), stage('lead'), stage('second', { gain: 0 })],
      },
    ],
    pairs: [{ left: 'left', right: 'right' }],
  })
  const plan = planSession(session)
  // In the host only the last gain is moved.
  expect(plan.settings.map((each) => each.stage)).not.toContain('first')
  expect(planSession(applySettings(session, plan.settings as never)).settings).toEqual([])
})

it('where the steps of a pair do not meet, each side has the nearest below, and keeps it', () => {
  const gear = (id: string, kind: string, rest: object) => ({ id, kind, name: id, ...rest })
  const stage = (id: string, settings: object = {}) => ({ id, gear: id, settings })
  const session = valid({
    format: 'remetra.session',
    version: 2,
    id: 'steps',
    name: 'Two players',
    target: { risk: 2 },
    gear: [
      gear('one', 'playback', { specs: { level: 0, crest: 0 } }),
      gear('slider', 'fader', { place: 'system', specs: { gainMin: -90, gainMax: 10, gainStep: 0 } }),
      gear('other', 'playback', { specs: { level: 0, crest: 0 } }),
      gear('trim', 'processor', { domain: 'digital', specs: { gainMin: -9.013, gainMax: 0, gainStep: 0.1 } }),
    ],
    strips: [
      { id: 'left', name: 'Left', stages: [stage('one'), stage('slider', { gain: 0 })] },
      { id: 'right', name: 'Right', stages: [stage('other'), stage('trim', { gain: -9.013 })] },
    ],
    pairs: [{ left: 'left', right: 'right' }],
  })
  const { settings } = planSession(session)
  const [slider, trim] = settings.map(({ to }) => Number(to))
  expect(settings.map((each) => each.stage)).toEqual(['slider', 'trim'])
  expect(Math.abs((slider as number) - (trim as number))).toBeLessThan(0.1)
  expect(planSession(applySettings(session, settings as never)).settings).toEqual([])
})

it('a window by risk is the same whatever the faders in the host are set to, and planned again it stays', () => {
  const fader = { gainMin: -90, gainMax: 10, gainStep: 0 }
  const session = chain(
    [
      { gear: { kind: 'playback', specs: { level: 0, crest: 0 } } },
      { gear: { kind: 'fader', place: 'system', specs: fader }, settings: { gain: 10 } },
      // Overdriven by the one before it, it holds the level: nothing varies behind it.
      { gear: { kind: 'fader', place: 'host', arithmetic: 'fixed', specs: fader }, settings: { gain: 0 } },
    ],
    { version: 2, target: { risk: 1 } },
  )
  const windowAt = (each: Session) => {
    const strip = each.strips[0] as Session['strips'][0]
    return windowOf(each, strip, stagesOf(each, strip)).aim
  }
  const { settings } = planSession(session)
  const planned = applySettings(session, settings as never)
  expect(settings.length).toBeGreaterThan(0)
  expect(windowAt(planned)).toBeCloseTo(windowAt(session), 9)
  expect(planSession(planned).settings).toEqual([])
})

describe('a target by risk (GUM: normal law, root of the sum of squares)', () => {
  const session = (risk: number) => valid({ ...withAt(example1(), ['target'], { risk }), version: 1 })
  const stripOf = (each: Session) => each.strips[0] as Session['strips'][0]
  const stages = (each: Session) => stagesOf(each, stripOf(each))
  it('worked example 1: the surge’s peak is known to 3.79 dB; 1 % leaves 8.81 dB', () => {
    const each = session(1)
    expect(surgeUncertainty(each, stripOf(each))).toBeCloseTo(3.79, 2)
    expect(windowOf(each, stripOf(each), stages(each))).toMatchObject({ reads: 'surge-peak' })
    // 2.326 times 3.79, from the tables of the normal law.
    expect(windowOf(each, stripOf(each), stages(each)).aim).toBeCloseTo(-8.81, 1)
  })
  it('a smaller risk plans less gain, a larger one more', () => {
    const gains = [0.1, 1, 10].map((risk) => gainOf(session(risk), session(risk).strips[0]?.stages[2]?.id ?? ''))
    expect(gains[0]).toBeLessThan(gains[1] as number)
    expect(gains[1]).toBeLessThan(gains[2] as number)
  })
})

it('a convention for a live mix reads the desk’s meter, where there is a desk', () => {
  const session = (zero: number) =>
    chain(
      [
        { gear: line({ level: -20, noise: -110, crest: 3.0103 }) },
        {
          gear: {
            kind: 'desk-channel',
            input: 'line',
            desk: 'desk',
            specs: {
              gainMin: 0,
              gainMax: 60,
              gainStep: 1,
              faderMin: -60,
              faderMax: 10,
              ein: -127,
              zero,
              maxInput: 30,
              maxOutput: 30,
            },
          },
          settings: { gain: 0, fader: 0 },
        },
        { gear: interfaceWith(lineInput({ fullScale: 24, gainMax: 0 })), port: 'in1' },
      ],
      { version: 2, target: 'live-6-0' },
    )
  expect(own(session(4)).points[1]?.peak).toBeCloseTo(4 - 3, 0)
  expect(own(session(0)).points[1]?.peak).toBeCloseTo(0 - 3, 0)
})

describe('a fader that had to make room for an inline preamp behind a limiter', () => {
  it('keeps the whole reserve, and a second plan changes nothing', () => {
    const session = chain(
      [
        { gear: line({ level: 0, crest: 3, surge: 0 }) },
        { gear: fader('desk', { gainMin: -90, gainMax: 10 }), settings: { gain: 0 } },
        { gear: processor('analogue', [{ type: 'limiter', ceiling: 0 }]) },
        { gear: { kind: 'booster', specs: { gain: 9.9, ein: -110, maxOutput: 0 } } },
        {
          gear: interfaceWith(micInput({ gainMin: 0, gainMax: 0, fullScale: 0, ein: -100 })),
          port: 'in1',
          settings: {},
        },
      ],
      { target: 'speech-average' },
    )
    const { plan, points } = own(session)
    expect(points[3]?.headroom).toBeGreaterThanOrEqual(10 - 1e-6)
    expect(planSession(applySettings(session, plan.settings)).settings).toEqual([])
  })
})
