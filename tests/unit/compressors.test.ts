import { describe, expect, it } from 'vitest'
import { dynamicAim } from '#core/chain/dynamics'
import { settingWords } from '#core/chain/setting-words'
import { cascadeStrip } from '#core/chain/graph'
import { stagesOf } from '#core/resolved/resolve-session'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { compareSessions } from '#core/log/compare'
import { recallSteps } from '#core/log/recall'
import { asChange } from '#core/plan/as-change'
import { planSession } from '#core/plan/plan-session'
import type { Reading } from '#core/model'
import type { Session } from '#core/session'
import { applySettings } from '#core/edits'
import { faultText } from '#core/soundcheck/reading-words'
import { instructions } from '#core/soundcheck/run-sheet'
import { chain, interfaceWith, line, lineInput, microphone, preamp, voice } from '../support/chains'

const processor = (blocks: object[], specs: object = {}) => ({
  kind: 'processor',
  blocks,
  specs: {
    gainMin: -20,
    gainMax: 20,
    maxInput: 24,
    maxOutput: 24,
    inputImpedance: 20_000,
    outputImpedance: 100,
    ...specs,
  },
})
const compressor = (more: object = {}) => ({ type: 'compressor', threshold: -6, ratio: 4, ...more })

/** A voice, a moving coil, a preamp at 10 of 10 to 60 dB, a processor, a line input. */
const inserted = (...blocks: object[]): Session =>
  chain(
    [
      { gear: voice(), settings: { distance: 0.1 } },
      { gear: microphone() },
      { gear: preamp({ gainMin: 10 }), settings: { gain: 10 } },
      { gear: processor(blocks), settings: { gain: 0 } },
      { gear: interfaceWith(lineInput({ gainMin: -10 })), port: 'in1', settings: { gain: 0 } },
    ],
    { version: 3, target: 'peaks-18-12' },
  )
const planned = (session: Session) => applySettings(session, planSession(session).settings.map(asChange))
const at = (session: Session, stage: string) =>
  evaluateSession(session).strips[0]?.points.find((point) => point.stage === stage)

describe('a compressor that is not set up yet is planned into', () => {
  it('behind an unset preamp: 3 dB off at the rehearsed peak, the gain before it does that', () => {
    const session = inserted(compressor())
    const plan = planSession(session)
    const after = planned(session)
    // 3 dB off at 4 : 1 lie 4.0 dB over the threshold; the gain has a grid of a tenth.
    expect(at(after, 's3')?.reduction?.peak).toBeCloseTo(3, 1)
    expect(at(after, 's2')?.peak).toBeCloseTo(-6 + 4, 0)
    expect(plan.strips[0]?.gains.find(({ stage }) => stage === 's2')?.reason).toMatch(
      /^Brings the peaks into “Box 3”, which takes [\d.]+ dB off; 3\.0 dB are wanted\.$/,
    )
    expect(plan.strips[0]?.off).toBe(0)
    expect(plan.strips[0]?.remedy).toBeNull()
    expect(planSession(after).settings).toEqual([])
  })
  it.each([
    [3, 4],
    [6, 8],
  ])('%i dB wanted at 4 : 1 are %d dB over the threshold', (takesOff, over) => {
    const after = planned(inserted(compressor({ takesOff })))
    expect(at(after, 's3')?.reduction?.peak).toBeCloseTo(takesOff, 1)
    const stages = stagesOf(after, after.strips[0] as Session['strips'][0])
    const { points } = cascadeStrip(after.strips[0] as Session['strips'][0], stages, after, [])
    expect(dynamicAim(stages, points, 3)?.level).toBeCloseTo(-6 + over, 9)
  })
  it('a wanted reduction is reached from too much as from too little', () => {
    const hot = applySettings(inserted(compressor({ takesOff: 2 })), [
      { strip: 's', stage: 's2', setting: 'gain', to: 55 as never },
    ])
    // A tenth of gain is 0.075 dB of reduction.
    expect(Math.abs((at(planned(hot), 's3')?.reduction?.peak ?? 0) - 2)).toBeLessThan(0.08)
  })
  it('one that was set up stays as it is set', () => {
    const set = applySettings(inserted(compressor()), [{ strip: 's', stage: 's2', setting: 'gain', to: 50 as never }])
    const before = at(set, 's3')?.reduction?.peak
    expect(before).toBeGreaterThan(3)
    expect(at(planned(set), 's3')?.reduction?.peak).toBeCloseTo(before as number, 1)
  })
  it('a limiter: the rehearsed peak at its ceiling; a gate: the average at least 10 dB over its threshold', () => {
    expect(at(planned(inserted({ type: 'limiter', ceiling: 8 })), 's2')?.peak).toBeCloseTo(8, 0)
    const gated = planned(inserted({ type: 'expander', threshold: -20, ratio: 2 }))
    expect(at(gated, 's2')?.average).toBeGreaterThanOrEqual(-10.6)
  })
  it('as far as the reserve allows: the headroom before it outranks the reduction', () => {
    const session = chain(
      [
        { gear: line({ level: -40, surge: 0 }) },
        { gear: preamp({ maxOutput: 0 }), settings: { gain: 0 } },
        { gear: processor([compressor({ threshold: 4 })]), settings: { gain: 0 } },
        { gear: interfaceWith(lineInput()), port: 'in1', settings: { gain: 0 } },
      ],
      { version: 3 },
    )
    expect(at(planned(session), 's1')?.headroom).toBeGreaterThanOrEqual(10 - 1e-6)
  })
})

describe('less, through a curve', () => {
  const hot = () =>
    chain(
      [
        { gear: line({ level: 12, crest: 12, surge: 0, maxOutput: 60 }) },
        {
          gear: processor([compressor({ threshold: -20, ratio: 10, makeUp: 20 })], { maxInput: 60, maxOutput: 60 }),
          settings: { gain: 5 },
        },
        {
          gear: interfaceWith(lineInput({ gainMin: 0, gainMax: 0, fullScale: 0 })),
          port: 'in1',
          settings: { gain: 0 },
        },
      ],
      { version: 3 },
    )
  it('what 10 : 1 holds up is cured at the output or the make-up, and both numbers do what they say', () => {
    const session = hot()
    const found = evaluateSession(session).strips[0]?.findings.find(({ code }) => code === 'clips')
    const strip = session.strips[0] as Session['strips'][0]
    const stages = stagesOf(session, strip)
    expect(found).toBeDefined()
    const action = found?.changes ? `${found.message}` : (found?.action ?? '')
    if (found?.changes) {
      // A fix was tried: nothing clips with it.
      const after = applySettings(session, found.changes.filter((each) => 'setting' in each) as never)
      expect(at(after, 's2')?.headroom).toBeGreaterThanOrEqual(0)
      return
    }
    const less = Number(/Bring at least ([\d.]+) dB less to “Box 2”/.exec(action)?.[1])
    expect(action).toContain('turn the output or make-up of “Box 1” down by that much')
    expect(cascadeStrip(strip, stages, session, [], { at: 2, by: less }).points[2]?.headroom).toBeGreaterThanOrEqual(
      5.9,
    )
    // As much before the compressor would leave nearly all of it.
    expect(cascadeStrip(strip, stages, session, [], { at: 1, by: less }).points[2]?.headroom).toBeLessThan(0)
  })
})

describe('the settings of a processor are settings', () => {
  const session = planned(inserted(compressor({ makeUp: 2 }), { type: 'limiter', ceiling: 10 }))
  const turned = (part: object): Session => ({
    ...session,
    gear: session.gear.map((item) =>
      item.kind === 'processor'
        ? {
            ...item,
            blocks: item.blocks.map((block, i) => (i === 0 ? ({ ...block, ...part } as typeof block) : block)),
          }
        : item,
    ),
  })
  const side = (each: Session) => ({ session: each, evaluation: evaluateSession(each) })

  it('stand on the sheets by name and unit', () => {
    const [stage] = stagesOf(session, session.strips[0] as Session['strips'][0]).slice(3)
    expect(settingWords(stage as never).map(({ name, words }) => `${name}: ${words}`)).toEqual([
      expect.stringMatching(/^Gain: /),
      'Compressor: in',
      'Compressor threshold: −6 dBu',
      'Compressor ratio: 4 : 1',
      'Compressor make-up: 2 dB',
      'Limiter: in',
      'Limiter ceiling: 10 dBu',
    ])
  })
  it('have steps of the run sheet', () => {
    const titles = instructions(session, evaluateSession(session)).map(({ title }) => title)
    expect(titles).toContain('Box 3, Compressor: threshold −6 dBu, ratio 4 : 1, make-up 2 dB')
    expect(titles).toContain('Box 3, Limiter: ceiling 10 dBu')
  })
  it.each([
    [{ threshold: 4 }, 'threshold −6 dBu'],
    [{ ratio: 2 }, 'ratio 4 : 1'],
    [{ makeUp: 6 }, 'make-up 2 dB'],
    [{ on: false }, 'Compressor: threshold'],
  ])('a mark brings them back: %o', (part, expected) => {
    const steps = recallSteps(side(turned(part)), side(session))
    expect(steps.map(({ title }) => title).join('\n')).toContain(expected)
  })
  it('are compared with units, a ratio under its own name', () => {
    const { settings, gear } = compareSessions(side(session), side(turned({ ratio: 2, threshold: 4 })))
    expect(settings.map(({ what, from, to }) => `${what}: ${from} → ${to}`)).toEqual([
      'Box 3, compressor threshold: −6 dBu → 4 dBu',
      'Box 3, compressor ratio: 4 : 1 → 2 : 1',
    ])
    expect(gear).toEqual([])
  })
  it('are looked at first where a reading behind them is far off; before them, and while they are out, the switches are', () => {
    const first = (each: Session, stage: string) => faultText(each, { strip: 's', stage } as Reading, 7.1)
    expect(first(session, 's4')).toContain(
      'Look first at the threshold and make-up of “Box 3”, then for a wrong switch: pad',
    )
    expect(first(session, 's2')).toContain('Check the switches first: pad')
    const out = {
      ...session,
      gear: session.gear.map((box) =>
        box.kind === 'processor' ? { ...box, blocks: box.blocks.map((block) => ({ ...block, on: false })) } : box,
      ),
    }
    expect(first(out, 's4')).toContain('Check the switches first: pad')
  })
})
