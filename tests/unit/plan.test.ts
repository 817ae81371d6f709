import { describe, expect, it } from 'vitest'
import { nearestGain, settableGain } from '#core/chain/settable-gain'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { planSession } from '#core/plan/plan-session'
import type { InputSpecs } from '#core/gear'
import type { ConventionId } from '#core/model'
import { applyChanges } from '#core/edits'
import { conventions } from '#core/model'
import { db } from '#core/units'
import { example1, valid, withAt } from '../support/sessions'

const specs: (string | number)[] = ['gear', 2, 'inputs', 0, 'specs']
const planned = (file: object) => planSession(valid(file))
const gainOf = (file: object) => planned(file).settings[0]?.to
const withTarget = (target: unknown) => withAt(example1(), ['target'], target)

describe('the planner', () => {
  // Example 1 peaks at −19.487 at 35 dB, its average is −30.477, with the surge it peaks at −13.487.
  // Gain = 35 + aim − reading, rounded down to whole dB.
  it.each<[ConventionId, number]>([
    ['speech-average', Math.floor(35 - 11 + 30.477)], // 54
    ['peaks-12-6', Math.floor(35 - 9 + 19.487)], // 45
    ['peaks-15-12', Math.floor(35 - 13.5 + 19.487)], // 40
    ['peaks-18-12', Math.floor(35 - 15 + 19.487)], // 39
    ['peaks-20-15', Math.floor(35 - 17.5 + 19.487)], // 36
    ['live-6-0', Math.floor(35 - 3 + 19.487)], // 51
    ['hot-limited', Math.floor(35 - 1 + 13.487)], // 47
  ])('%s sets %i dB', (target, gain) => {
    expect(gainOf(withTarget(target))).toBe(gain)
  })
  it('knows all eight conventions, each with who and why', () => {
    expect(Object.keys(conventions)).toHaveLength(8)
    for (const convention of Object.values(conventions)) expect(convention.why.length).toBeGreaterThan(20)
  })
  it('takes a window of one’s own, read as peak or as average', () => {
    expect(gainOf(withTarget({ low: -30, high: -20 }))).toBe(Math.floor(35 - 25 + 19.487))
    expect(gainOf(withTarget({ low: -30, high: -20, reads: 'average' }))).toBe(Math.floor(35 - 25 + 30.477))
  })
  it('rounds down to the step; where that lands under the window and one step more inside it, that', () => {
    // 39.49: 35 would read −19.49, under −18; 40 reads −14.49, inside.
    expect(gainOf(withAt(example1(), [...specs, 'gainStep'], 5))).toBe(40)
    expect(gainOf(withAt(example1(), [...specs, 'gainStep'], 3))).toBe(39)
    expect(gainOf(withAt(example1(), [...specs, 'gainStep'], 0))).toBeCloseTo(39.4, 9)
  })
  it('clamps to the range and says so', () => {
    const high = planned(withAt(example1(), [...specs, 'gainMax'], 37))
    expect(high.settings[0]?.to).toBe(37)
    expect(high.settings[0]?.reason).toContain('maximum gain')
    const loud = planned(withAt(example1(), ['gear', 0, 'specs', 'level'], 118))
    expect(loud.settings[0]?.to).toBe(0)
    expect(loud.settings[0]?.reason).toContain('minimum gain')
  })
  it('counts the gain from gainMin: the same input labelled 10…70 dB is set 10 dB higher', () => {
    const relabelled = withAt(
      withAt(withAt(example1(), [...specs, 'gainMin'], 10), [...specs, 'gainMax'], 70),
      ['strips', 0, 'stages', 2, 'settings', 'gain'],
      45,
    )
    expect(gainOf(relabelled)).toBe(49)
  })
  it('answers with the evaluation of the planned session, and planning it again changes nothing', () => {
    const session = valid(example1())
    const plan = planSession(session)
    const done = applyChanges(session, plan.settings)
    expect(JSON.stringify(plan.evaluation)).toBe(JSON.stringify(evaluateSession(done)))
    expect(plan.evaluation.strips[0]?.points[2]?.peak).toBeCloseTo(-15.487, 3)
    expect(planSession(done).settings).toEqual([])
  })
})

describe('settable gains', () => {
  const range = (gainMin: number, gainMax: number, gainStep: number) => ({ gainMin, gainMax, gainStep }) as InputSpecs
  it('keeps a gain that is on the grid in spite of rounding errors', () => {
    expect(settableGain(range(0, 60, 0.1), db(0.1 + 0.2)).gain).toBe(0.3)
    expect(settableGain(range(0, 60, 1), db(39 - 1e-9)).gain).toBe(39)
  })
  it('reaches the end of a range that the grid does not meet', () => {
    expect(settableGain(range(0, 58, 5), db(58)).gain).toBe(58)
    expect(settableGain(range(0, 58, 5), db(57)).gain).toBe(55)
  })
  it('a drag snaps to the nearest step and stays inside', () => {
    expect(nearestGain(range(0, 60, 3), 37)).toBe(36)
    expect(nearestGain(range(0, 60, 3), 37.6)).toBe(39)
    expect(nearestGain(range(0, 60, 3), 99)).toBe(60)
    expect(nearestGain(range(0, 60, 3), -99)).toBe(0)
  })
})
