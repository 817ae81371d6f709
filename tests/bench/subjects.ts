import { demoSession } from '#demo/index'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { planSession } from '#core/plan/plan-session'
import type { Session } from '#core/session'
import { readSession } from '#core/session'

/** The demo, and the same strips over and over. */
export const demo = demoSession()
const many: Session = {
  ...demo,
  strips: Array.from({ length: 64 }, (_, i) => {
    const strip = demo.strips[i % demo.strips.length] as Session['strips'][number]
    return { ...strip, id: `${strip.id}-${i}`, stages: strip.stages.map((stage) => ({ ...stage, id: `${stage.id}-${i}` })) }
  }),
}

/** As wrong as a file can be and still be looked at value by value. */
const wrong = { ...demo, gear: Array.from({ length: 450 }, () => ({ kind: 'interface', inputs: Array.from({ length: 100 }, () => ({})) })) }

/** What is measured, and the bound on its median in microseconds where there is one. */
export const subjects: { name: string, run: () => unknown, bound?: number }[] = [
  { name: 'evaluate the demo (3 strips of 3 stages)', run: () => evaluateSession(demo), bound: 50 },
  { name: 'evaluate 64 strips of 3 stages', run: () => evaluateSession(many), bound: 5000 },
  { name: 'plan the demo', run: () => planSession(demo) },
  { name: 'refuse a file of 45 000 wrong values', run: () => readSession(wrong), bound: 1_000_000 },
]
