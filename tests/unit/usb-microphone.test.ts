import { describe, expect, it } from 'vitest'
import { explain } from '#core/explain/explain'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { verdict } from '#core/evaluation/verdict'
import { planSession } from '#core/plan/plan-session'
import type { Gear } from '#core/gear'
import type { Session } from '#core/session'
import { readSession, writeSession } from '#core/files'
import { startSession } from '#core/edits'
import { traitsOf, withChoice } from '#core/gear'
import { chain, interfaceWith, microphone, micInput, usbMicrophone, voice } from '../support/chains'

const taken = (settings: object = {}, specs: object = {}): Session =>
  chain(
    [
      { gear: voice(), settings: { distance: 0.3 } },
      { gear: usbMicrophone(specs), settings: { gain: 0, ...settings } },
      { gear: interfaceWith({ type: 'digital' }), port: 'in1' },
    ],
    { version: 3, target: 'peaks-18-12', room: { ambient: 28 } },
  )
const end = (session: Session) => evaluateSession(session).strips[0]?.points.at(-1)

describe('a microphone with a converter of its own', () => {
  it('gives dBFS: its level at 94 dB SPL, and its gain over the minimum', () => {
    // 70 dB SPL at 1 m are 80.46 at 0.3 m; −38 at 94: −51.54 dBFS.
    expect(end(taken())?.average).toBeCloseTo(-51.542, 3)
    expect(end(taken({ gain: 20 }))?.average).toBeCloseTo(-31.542, 3)
    expect(end(taken({ gain: 12 }, { gainMin: 10 }))?.average).toBeCloseTo(-49.542, 3)
    expect(end(taken())?.unit).toBe('dBFS')
  })
  it('clips at 0 dBFS, and at its capsule whatever the gain', () => {
    const loud = evaluateSession(taken({ gain: 36 }, { digitalSensitivity: -10 })).strips[0]
    expect(loud?.points[1]).toMatchObject({ clipped: true, ceiling: 0 })
    expect(evaluateSession(taken({}, { maxSpl: 90 })).strips[0]?.points[0]?.clipped).toBe(true)
  })
  it('names itself, not its capsule, where its converter has the least headroom', () => {
    const session = taken({ gain: 30 })
    const [evaluated] = evaluateSession(session).strips
    expect(verdict(session, session.strips[0]!, evaluated!).headroom.detail).toMatch(/^at Box 1;/)
  })
  it('is planned by its own gain, to the middle of the window, and needs no 48 V', () => {
    const plan = planSession(taken())
    expect(plan.settings).toMatchObject([{ stage: 's1', setting: 'gain' }])
    expect(plan.strips[0]).toMatchObject({ off: 0, remedy: null })
    expect(plan.evaluation.strips[0]?.findings.map(({ code }) => code).join()).not.toMatch(/phantom/)
  })
  it('tells what its level is made of, and how sure it is', () => {
    const explained = explain(taken({ gain: 20 }), { strip: 's', stage: 's1', figure: 'gain' })
    expect(explained?.parts.map(({ name, adds }) => [name, adds])).toEqual([
      ['Level at 94 dB SPL', -132],
      ['Gain', 20],
    ])
    const doubts = explain(taken(), { strip: 's', stage: 's1', figure: 'peak' })?.doubts
    // Half a width of 2 dB, each place in it as likely: 2/√3.
    expect(doubts?.find(({ name }) => name.includes('Level at 94 dB SPL'))?.u).toBeCloseTo(1.155, 3)
  })
  it('stands behind no microphone input, and takes none of an analogue one’s figures', () => {
    const faults = (file: unknown) => {
      const reading = readSession(file)
      return reading.ok ? [] : reading.faults.map(({ path, code }) => `${path} ${code}`)
    }
    const file = JSON.parse(writeSession(taken())) as { gear: { specs: object }[] }
    const both = structuredClone(file)
    Object.assign(both.gear[1]?.specs ?? {}, { sensitivity: 12 })
    expect(faults(both)).toEqual(['gear[1].specs.sensitivity unknown-key'])
    const neither = structuredClone(file)
    Object.assign(neither.gear[1] ?? {}, { specs: { selfNoise: 14 } })
    expect(faults(neither)).toContain('gear[1].specs.sensitivity missing')
    expect(() =>
      chain([
        { gear: voice() },
        { gear: usbMicrophone() },
        { gear: interfaceWith(micInput()), port: 'in1', settings: { gain: 0 } },
      ]),
    ).toThrow(/digital/)
  })
  it('is chosen in the form, and back: figures of the other kind go', () => {
    const box = { id: 'm', name: 'Mic', ...microphone() } as unknown as Gear
    const digital = withChoice(box, 'output', 'digital')
    expect(digital).toMatchObject({ specs: { digitalSensitivity: -38, maxSpl: 150 } })
    expect('sensitivity' in (digital as { specs: object }).specs).toBe(false)
    // In its form each needs what it is nothing without.
    expect(traitsOf(box).fields(box).sensitivity?.optional).toBeUndefined()
    expect(traitsOf(digital).fields(digital).digitalSensitivity?.optional).toBeUndefined()
    expect(traitsOf(digital).fields(digital).selfNoise?.optional).toBe(true)
    const back = withChoice(digital, 'output', 'analogue') as { specs: object }
    expect(back.specs).toMatchObject({ sensitivity: 12, impedance: 150 })
    expect('digitalSensitivity' in back.specs).toBe(false)
  })
  it('is one of the answers at the start, whatever else was answered', () => {
    for (const chainAnswer of ['interface', 'preamp', 'desk'] as const) {
      const session = startSession('own', 'Own', {
        names: 'Reader, Laptop',
        microphone: 'usb',
        chain: chainAnswer,
        into: ['group', 'stream'],
      })
      const [reader, laptop] = session.strips
      expect(reader?.stages.map(({ gear }) => gear)).toEqual(['source-1', 'microphone-1', 'interface'])
      expect(laptop?.stages.at(-1)?.gear).toBe('interface')
      expect(planSession(session).evaluation.strips[0]?.findings.filter(({ severity }) => severity === 'stop')).toEqual(
        [],
      )
    }
  })
})
