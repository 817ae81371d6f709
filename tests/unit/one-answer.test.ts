import fc from 'fast-check'
import { expect, it } from 'vitest'
import { causeOf } from '#core/diagnosis/causes'
import { dropoutRemediesOf } from '#core/diagnosis/dropout-steps'
import { fixOf } from '#core/diagnosis/fixes'
import { SessionView } from '#core/diagnosis/view'
import type { DiagnosisView } from '#core/diagnosis/view'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { verdict } from '#core/evaluation/verdict'
import type { Session } from '#core/session'
import { isBus } from '#core/model'
import { readSession } from '#core/files'
import { instructions } from '#core/soundcheck/run-sheet'
import { timingAxes } from '#core/latency/axes'
import { anySession } from '../support/generate'
import { printedLatency } from '../support/sessions'
import { runs } from '../support/runs'

/** What else a session tells of the machine and of how its performers listen. */
const listened = fc.record({
  base: anySession,
  bufferFrames: fc.constantFrom(32, 64, 128, 256, 512, 1024),
  loads: fc.constantFrom<[number, number][]>(
    [],
    [
      [64, 30],
      [256, 20],
    ],
    [
      [64, 96],
      [256, 70],
    ],
    [
      [64, 160],
      [1024, 107],
    ],
  ),
  route: fc.constantFrom('direct', 'software'),
  both: fc.boolean(),
  direct: fc.constantFrom('digital', 'analogue', 'none'),
  listensTo: fc.constantFrom('own-voice', 'plucked', 'keys', 'click-only'),
})
const sessions = listened.map(({ base, bufferFrames, loads, route, both, direct, listensTo }): Session => {
  const reading = readSession({
    ...JSON.parse(JSON.stringify(base)),
    format: 'remetra.session',
    version: 3,
    system: {
      ...base.system,
      bufferFrames,
      loads: loads.map(([frames, load]) => ({
        sampleRate: base.system.sampleRate,
        bufferFrames: frames,
        percent: load,
      })),
    },
    gear: base.gear.map((box) =>
      box.kind === 'interface'
        ? {
            ...box,
            latency: printedLatency,
            direct,
            sampleRates: [44_100, 48_000, 96_000],
            bufferSizes: [32, 64, 128, 256, 512, 1024],
          }
        : box,
    ),
    strips: base.strips.map((strip) => ({
      ...strip,
      monitor: { ...strip.monitor, route, ...(both && { alsoHeard: -3 }) },
      performer: { listensTo },
    })),
  })
  if (!reading.ok) throw new Error(JSON.stringify(reading.faults))
  return reading.session
})

/** What each screen, step and fix tells of how a strip is to be heard, against the recommendation. */
function listensAlike(all: SessionView, view: DiagnosisView): string[] {
  const { session, strip, monitor, recommendation: best } = view
  if (!best) return []
  const wrong: string[] = []
  const tell = (holds: boolean, words: string) =>
    holds || wrong.push(`${strip.id}: ${words}, though ${JSON.stringify(best)}`)
  const heard = view.evaluated.latency.some(({ route }) => route === strip.monitor.route)
  const { detail } = verdict(session, strip, view.evaluated, best).latency
  const asSet =
    best.route === strip.monitor.route &&
    (best.route === 'direct' ||
      (best.bufferFrames === session.system.bufferFrames && best.sampleRate === session.system.sampleRate))
  const named = best.route === 'direct' ? 'recommended: direct' : `recommended: ${best.bufferFrames} frames`
  if (heard) tell(asSet ? !detail.includes('recommended') : detail.includes(named), `the bar says "${detail}"`)
  const doubling = monitor?.doubling
  if (doubling) {
    tell(doubling.keep === best.route, `Monitoring keeps ${doubling.keep}`)
    tell(
      doubling.switchOff.includes('host') === (best.route === 'direct'),
      `Monitoring switches off ${doubling.switchOff}`,
    )
    const fix = fixOf(view, 'direct-and-host').changes?.[0]
    tell(!fix || !('do' in fix) || fix.do !== 'monitor' || fix.set.route === best.route, 'Faults keeps the other way')
  }
  const step = instructions(session, evaluateSession(session)).find(({ id }) => id === `${strip.id}.monitoring`)
  if (step)
    tell(
      (step.detail ?? '').includes(best.reason) === (best.route !== strip.monitor.route),
      `the step says "${step.detail}"`,
    )
  const late = causeOf('buffer-too-large').fixes?.(view)[0]?.changes ?? []
  if (best.sustained)
    for (const change of late) {
      if ('do' in change && change.do === 'monitor') tell(change.set.route === best.route, 'Faults listens otherwise')
      if ('do' in change && change.do === 'system')
        tell(change.set.bufferFrames === best.bufferFrames, 'Faults sets another buffer')
    }
  tell(
    best.sustained || all.timing.matrix.every(({ sustainable }) => sustainable === false),
    'some cell is sustained while the recommendation is not',
  )
  return wrong
}

/** What is told of the buffer and of sliders: at the largest nobody is told to raise it, and a slider belongs at one place. */
function setsAlike(all: SessionView): string[] {
  const { session, unit } = all
  const wrong: string[] = []
  const [first] = dropoutRemediesOf(session)
  if (unit && first !== undefined) {
    const isLargest = timingAxes(session, unit).buffers.every((count) => count <= session.system.bufferFrames)
    const said = [first, ...all.strips.slice(0, 1).map((view) => causeOf('buffer-too-small').byHandIn?.(view) ?? '')]
    const named = said.map((words) => /Raise the buffer(?:: | to )(\d+)/.exec(words)?.[1] ?? 'largest')
    if (new Set(named).size > 1 || (named[0] === 'largest') !== isLargest) wrong.push(said.join(' | '))
  }
  const sliders = instructions(session, evaluateSession(session)).find(({ id }) => id === 'system.slider')?.detail
  for (const view of all.strips) {
    const fix = causeOf('system-slider-up').fixes?.(view)[0]
    const to = /to (−?[\d.]+) dB/.exec(fix?.says ?? '')?.[1]
    if (
      sliders &&
      fix &&
      view.chain.controls.some(({ isSystemSlider, value }) => isSystemSlider && value > 0) &&
      !sliders.includes(`At ${Number(to?.replace('−', '-')) === 0 ? '0' : to} dB`)
    )
      wrong.push(`Faults sets the slider to ${to}, the step says "${sliders}"`)
  }
  return wrong
}

it('screens, steps, causes and endpoints give one answer to each question, on 200 generated sessions', () => {
  let [listeners, doubled, differing] = [0, 0, 0]
  fc.assert(
    fc.property(sessions, (session) => {
      const all = new SessionView(session)
      const own = all.strips.filter(({ strip }) => !isBus(strip))
      for (const view of own) {
        if (view.recommendation) listeners++
        if (view.monitor?.doubling) doubled++
        if (view.recommendation && view.recommendation.route !== view.strip.monitor.route) differing++
      }
      expect([...own.flatMap((view) => listensAlike(all, view)), ...setsAlike(all)]).toEqual([])
    }),
    { seed: 20261129, numRuns: runs(200) },
  )
  expect(Math.min(listeners, doubled, differing)).toBeGreaterThan(runs(20))
})
