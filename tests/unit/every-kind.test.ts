import fc from 'fast-check'
import { expect, it } from 'vitest'
import { stagesOf } from '#core/resolved/resolve-session'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { asChange } from '#core/plan/as-change'
import { planSession } from '#core/plan/plan-session'
import type { Evaluation } from '#core/evaluation/evaluate-session'
import type { Session } from '#core/session'
import { applyChanges, applySettings } from '#core/edits'
import { readSession } from '#core/files'
import { timeSession } from '#core/timing/time-session'
import { anySession } from '../support/generate'
import { runs } from '../support/runs'

const SEED = { seed: 20261126 }
const stops = (evaluation: Evaluation) =>
  new Set(
    evaluation.strips.flatMap(({ findings }) =>
      findings.filter((each) => each.severity === 'stop').map(({ code, stage }) => `${code} ${stage}`),
    ),
  )

it('sessions of every kind: finite or null, in the file and on the screen', () => {
  fc.assert(
    fc.property(anySession, (session) => {
      const text = JSON.stringify([evaluateSession(session), timeSession(session)])
      expect(text).not.toMatch(/NaN|Infinity|undefined/)
    }),
    { ...SEED, numRuns: runs(200) },
  )
})

it('a plan is a session, changes nothing the second time, and its hiss is never the worse one', () => {
  fc.assert(
    fc.property(anySession, (session) => {
      const plan = planSession(session)
      expect(JSON.stringify(plan)).not.toMatch(/NaN|Infinity/)
      const planned = applySettings(session, plan.settings.map(asChange))
      expect(readSession(planned).ok).toBe(true)
      expect(planSession(planned).settings).toEqual([])
      for (const { hiss } of plan.strips) expect(hiss?.lower ?? 0).toBeGreaterThanOrEqual(0)
    }),
    { ...SEED, numRuns: runs(100) },
  )
})

/** Headroom of every stage that the planner answers for: not the capsule, not what is driven on purpose. */
function headrooms(session: Session, evaluation: Evaluation): Map<string, number> {
  return new Map(
    session.strips.flatMap((strip, s) =>
      stagesOf(session, strip).flatMap((stage, i) => {
        const point = evaluation.strips[s]?.points[i]
        const own = i > 0 && stage.kind !== 'microphone' && !stage.driven && point?.headroom != null
        return own ? [[stage.id, point.headroom as number] as const] : []
      }),
    ),
  )
}
it('no plan overdrives what was not overdriven before', () => {
  fc.assert(
    fc.property(anySession, (session) => {
      const before = headrooms(session, evaluateSession(session))
      const { evaluation } = planSession(session)
      for (const [stage, headroom] of headrooms(session, evaluation)) {
        expect(headroom, stage).toBeGreaterThanOrEqual(Math.min(0, before.get(stage) ?? 0) - 1e-6)
      }
    }),
    { ...SEED, numRuns: runs(200) },
  )
})

it('every fix that is offered cures its finding, spoils nothing, and is a session', () => {
  let fixes = 0
  fc.assert(
    fc.property(anySession, (session) => {
      const before = evaluateSession(session)
      const known = stops(before)
      for (const { id, findings } of before.strips) {
        for (const { code, stage, changes } of findings) {
          if (!changes) continue
          fixes++
          const fixed = applyChanges(session, changes)
          expect(readSession(fixed).ok, code).toBe(true)
          const after = evaluateSession(fixed)
          const left = after.strips.find((each) => each.id === id)?.findings ?? []
          expect(
            left.some((each) => each.code === code && each.stage === stage),
            code,
          ).toBe(false)
          expect(
            [...stops(after)].filter((each) => !known.has(each)),
            code,
          ).toEqual([])
        }
      }
    }),
    { ...SEED, numRuns: runs(160) },
  )
  expect(fixes).toBeGreaterThan(runs(200))
})

it('every remedy that a plan offers reaches the target, planned with it, and spoils nothing', () => {
  let remedies = 0
  fc.assert(
    fc.property(anySession, (session) => {
      const known = stops(evaluateSession(session))
      for (const { strip, remedy } of planSession(session).strips) {
        if (!remedy || remedy.changes.length === 0) continue
        remedies++
        const fixed = applyChanges(session, remedy.changes)
        expect(readSession(fixed).ok).toBe(true)
        const plan = planSession(fixed)
        expect(plan.strips.find((each) => each.strip === strip)?.off, remedy.message).toBe(0)
        const own = new Set(fixed.strips.find((each) => each.id === strip)?.stages.map((stage) => stage.id))
        const fresh = [...stops(plan.evaluation)].filter(
          (each) => !known.has(each) && own.has(each.split(' ')[1] ?? ''),
        )
        expect(fresh, remedy.message).toEqual([])
      }
    }),
    { ...SEED, numRuns: runs(140) },
  )
  expect(remedies).toBeGreaterThan(runs(5))
})
