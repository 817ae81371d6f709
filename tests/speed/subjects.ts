import { demoSession } from '#demo/index'
import { templates, templateSession } from '#demo/templates'
import { diagnose } from '#core/diagnosis/diagnose'
import { evaluateFrom, evaluateSession } from '#core/evaluation/evaluate-session'
import { listenToChannel } from '#core/measure/heard/listen'
import { LiveMemory } from '#core/measure/live/live-memory'
import { LiveMeter } from '#core/measure/live/live-meter'
import { planSession } from '#core/plan/plan-session'
import { renderStrip } from '#core/render/chain'
import type { Session } from '#core/session'
import { readSession } from '#core/files'
import { howSure } from '#core/uncertainty/how-sure'
import { uncertaintyOf } from '#core/uncertainty/uncertainty'
import { db } from '#core/units'

/** The demo, and the same strips over and over. */
export const demo = demoSession()
const many: Session = {
  ...demo,
  strips: Array.from({ length: 64 }, (_, i) => {
    const strip = demo.strips[i % 4] as Session['strips'][number]
    return {
      ...strip,
      feeds: undefined,
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

/** The same into eight groups, and it with one gain a little higher, as a drag leaves it. */
const BUSSES = 8
const fader = { id: 'bus-fader', kind: 'fader', name: 'Group', place: 'host', arithmetic: 'float', specs: {} }
export const intoBusses = (() => {
  const raw = JSON.parse(JSON.stringify(manyLong)) as Session
  const reading = readSession({
    ...raw,
    gear: [...raw.gear, fader],
    strips: [
      ...raw.strips.map((strip, i) => ({ ...strip, feeds: [{ to: `bus-${i % BUSSES}` }] })),
      ...Array.from({ length: BUSSES }, (_, i) => ({
        id: `bus-${i}`,
        name: `Bus ${i}`,
        kind: 'bus',
        stages: Array.from({ length: 8 }, (_, k) => ({ id: `b${i}-${k}`, gear: 'bus-fader' })),
      })),
    ],
  })
  if (!reading.ok) throw new Error(`the busses are faulty: ${reading.faults[0]?.message}`)
  return reading.session
})()
const dragged: Session = (() => {
  const [first, ...others] = intoBusses.strips as [Session['strips'][number], ...Session['strips']]
  const stages = first.stages.map((stage) =>
    stage.settings.gain === undefined
      ? stage
      : { ...stage, settings: { ...stage.settings, gain: db(stage.settings.gain - 0.1) } },
  )
  return { ...intoBusses, strips: [{ ...first, stages }, ...others] }
})()
const before = evaluateFrom(null, intoBusses)

/** As wrong as a file can be and still be looked at value by value. */
const wrong = {
  ...demo,
  gear: Array.from({ length: 450 }, () => ({ kind: 'interface', inputs: Array.from({ length: 100 }, () => ({})) })),
}

/** Eight inputs as the worker that watches them has them. */
const tenSeconds = renderStrip(demo, 'narrator', { sampleRate: 48_000, programmeSeconds: 8, pauseSeconds: 2, seed: 3 })
const meters = Array.from({ length: 8 }, () => new LiveMeter(48_000, 1))
const memory = new LiveMemory(48_000, meters.length)
function secondOfInputs() {
  for (let at = 0; at < 48_000; at += 2400) {
    const block = tenSeconds.subarray(at, at + 2400)
    for (const meter of meters) meter.frames([block])
    memory.frames(meters.map(() => block))
    for (const meter of meters) meter.snapshot()
  }
}

/** What is measured, and the bound on its median in microseconds where there is one. */
export const subjects: { name: string; run: () => unknown; bound?: number }[] = [
  { name: 'evaluate the demo (5 strips, 3 busses)', run: () => evaluateSession(demo), bound: 60 },
  { name: 'evaluate 64 strips of the demo', run: () => evaluateSession(many), bound: 5000 },
  { name: 'evaluate 1 strip of 5 stages', run: () => evaluateSession(five), bound: 50 },
  { name: 'evaluate 64 strips of 8 stages', run: () => evaluateSession(manyLong), bound: 5000 },
  { name: 'evaluate 64 strips of 8 stages into 8 busses', run: () => evaluateSession(intoBusses), bound: 4000 },
  { name: 'one strip of those dragged', run: () => evaluateFrom(before, dragged), bound: 300 },
  { name: 'how sure is the demo', run: () => uncertaintyOf(demo), bound: 30_000 },
  { name: 'how sure are 64 strips of 8 stages into 8 busses, with draws', run: () => howSure(intoBusses) },
  { name: 'plan 1 strip of 8 stages, 6 gains', run: () => planSession(eight) },
  { name: 'plan the demo', run: () => planSession(demo) },
  { name: 'refuse a file of 45 000 wrong values', run: () => readSession(wrong), bound: 1_000_000 },
  {
    name: 'ten seconds of the demo’s narrator as sound',
    run: () => renderStrip(demo, 'narrator', { sampleRate: 48_000, programmeSeconds: 8, pauseSeconds: 2, seed: 3 }),
    bound: 1_000_000,
  },
  {
    name: 'ten seconds of the visitors’ preview, a bus, as sound',
    run: () => renderStrip(demo, 'preview', { sampleRate: 48_000, programmeSeconds: 8, pauseSeconds: 2, seed: 3 }),
  },
  { name: 'a second of eight live channels, measured', run: () => secondOfInputs(), bound: 200_000 },
  {
    name: 'ten seconds of a live channel, listened to',
    run: () => listenToChannel(tenSeconds, 48_000),
    bound: 500_000,
  },
  {
    name: 'a fault of the demo, all strips, from nothing',
    run: () => diagnose(demo, null, { symptoms: ['hiss'], answers: {} }),
  },
]
