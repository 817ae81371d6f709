import { demoSession } from '#demo/index'
import { templates, templateSession } from '#demo/templates'
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
    return {
      ...strip,
      id: `${strip.id}-${i}`,
      stages: strip.stages.map((stage) => ({ ...stage, id: `${stage.id}-${i}` })),
    }
  }),
}

/** One strip of five stages, and of eight: the longest template with what a desk adds to it. */
const five = templateSession(templates.find((each) => each.id === 'desk') as (typeof templates)[number])
const eight: Session = (() => {
  const raw = JSON.parse(JSON.stringify(five))
  const channel = raw.strips[0].stages
  for (const [i, id] of ['estuary-group', 'estuary-group', 'estuary-group'].entries())
    channel.splice(4, 0, { id: `more-${i}`, gear: id, settings: { gain: 0 } })
  const reading = readSession(raw)
  if (!reading.ok) throw new Error('the long chain is faulty')
  return reading.session
})()
export const manyLong: Session = {
  ...eight,
  strips: Array.from({ length: 64 }, (_, i) => {
    const strip = eight.strips[0] as Session['strips'][number]
    return {
      ...strip,
      id: `${strip.id}-${i}`,
      stages: strip.stages.map((stage) => ({ ...stage, id: `${stage.id}-${i}` })),
    }
  }),
}

/** As wrong as a file can be and still be looked at value by value. */
const wrong = {
  ...demo,
  gear: Array.from({ length: 450 }, () => ({ kind: 'interface', inputs: Array.from({ length: 100 }, () => ({})) })),
}

/** What is measured, and the bound on its median in microseconds where there is one. */
export const subjects: { name: string; run: () => unknown; bound?: number }[] = [
  { name: 'evaluate the demo (4 strips)', run: () => evaluateSession(demo), bound: 50 },
  { name: 'evaluate 64 strips of the demo', run: () => evaluateSession(many), bound: 5000 },
  { name: 'evaluate 1 strip of 5 stages', run: () => evaluateSession(five), bound: 50 },
  { name: 'evaluate 64 strips of 8 stages', run: () => evaluateSession(manyLong), bound: 5000 },
  { name: 'plan 1 strip of 8 stages, 6 gains', run: () => planSession(eight) },
  { name: 'plan the demo', run: () => planSession(demo) },
  { name: 'refuse a file of 45 000 wrong values', run: () => readSession(wrong), bound: 1_000_000 },
]
