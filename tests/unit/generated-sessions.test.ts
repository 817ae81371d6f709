import fc from 'fast-check'
import { expect, it } from 'vitest'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { gainTrade } from '#core/evaluation/gain-trade'
import { planSession } from '#core/plan/plan-session'
import type { Session } from '#core/session'
import { applyChanges } from '#core/edits'
import { readSession, writeSession } from '#core/files'
import { conventionIds } from '#core/model'
import { runs } from '../support/runs'

/** Sessions with every value anywhere in its range. */
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true, noDefaultInfinity: true })
const maybe = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined })

const file = fc
  .record({
    source: fc.record({
      level: number(0, 160),
      distance: number(0.01, 100),
      crest: number(0, 40),
      surge: number(0, 40),
    }),
    at: number(0.01, 100),
    microphone: fc.record({
      sensitivity: number(0.001, 1000),
      impedance: number(1, 1e6),
      selfNoise: maybe(number(-20, 80)),
      maxSpl: maybe(number(60, 200)),
    }),
    range: fc.tuple(number(-60, 100), number(-60, 100)),
    gain: number(0, 1),
    step: fc.oneof(fc.constantFrom(0, 0.1, 0.5, 1, 3), number(0, 20)),
    input: fc.record({
      fullScale: number(-60, 60),
      ein: number(-160, -40),
      dynamicRange: number(30, 160),
      impedance: maybe(number(10, 1e8)),
      pad: number(0, 60),
      einWeighting: fc.constantFrom('A', 'Z'),
    }),
    measured: maybe(number(-60, 60)),
    padIn: fc.boolean(),
    phantom: fc.boolean(),
    attitude: fc.constantFrom('needed', 'harmless', 'harmful'),
    ambient: maybe(number(-10, 130)),
    bitDepth: fc.constantFrom(16, 24, 32),
    sampleRate: fc.constantFrom(44100, 48000, 96000),
    target: fc.oneof(
      fc.constantFrom(...conventionIds),
      fc.tuple(number(-60, -1), number(0.01, 1)).map(([low, up]) => ({ low, high: Math.min(0, low + up * 60) })),
    ),
  })
  .map((draw): Session => {
    const [gainMin, gainMax] = [Math.min(...draw.range), Math.max(...draw.range)]
    const reading = readSession({
      format: 'remetra.session',
      version: 1,
      id: 'g',
      name: 'Generated',
      target: draw.target,
      system: { sampleRate: draw.sampleRate, bitDepth: draw.bitDepth },
      room: draw.ambient === undefined ? {} : { ambient: draw.ambient },
      gear: [
        { id: 'source', kind: 'sound-source', name: 'S', specs: draw.source },
        {
          id: 'mic',
          kind: 'microphone',
          name: 'M',
          principle: 'condenser',
          phantom: draw.attitude,
          specs: draw.microphone,
        },
        {
          id: 'unit',
          kind: 'interface',
          name: 'U',
          inputs: [
            {
              id: 'in',
              type: 'mic',
              phantom: true,
              specs: { ...draw.input, gainMin, gainMax, gainStep: draw.step },
              measured: draw.measured === undefined ? undefined : { fullScale: { value: draw.measured } },
            },
          ],
        },
      ],
      strips: [
        {
          id: 's',
          name: 'S',
          stages: [
            { id: 'a', gear: 'source', settings: { distance: draw.at } },
            { id: 'b', gear: 'mic' },
            {
              id: 'c',
              gear: 'unit',
              port: 'in',
              settings: {
                gain: Math.min(gainMax, gainMin + draw.gain * (gainMax - gainMin)),
                phantom: draw.phantom,
                pad: draw.padIn && draw.input.pad > 0,
              },
            },
          ],
        },
      ],
    })
    if (!reading.ok) throw new Error(JSON.stringify(reading.faults))
    return reading.session
  })

const finiteOrNull = (value: unknown): boolean => {
  if (typeof value === 'number') return Number.isFinite(value)
  if (typeof value === 'object' && value !== null) return Object.values(value).every(finiteOrNull)
  return true
}
const headroom = (session: Session, gain: number) =>
  evaluateSession(applyChanges(session, [{ strip: 's', stage: 'c', setting: 'gain', to: gain }])).strips[0]?.points.at(
    -1,
  )?.headroom ?? Number.NaN

it('ten thousand generated sessions: finite, monotone, whole, idempotent', () => {
  fc.assert(
    fc.property(file, (session) => {
      const evaluation = evaluateSession(session)
      expect(finiteOrNull(evaluation)).toBe(true)
      expect(JSON.stringify(evaluation)).not.toMatch(/NaN|Infinity/)

      const shares = evaluation.strips[0]?.noise.map((each) => each.share) ?? []
      expect(Math.abs(shares.reduce((sum, share) => sum + share, 0) - 1)).toBeLessThan(1e-9)

      const gain = session.strips[0]?.stages[2]?.settings.gain ?? 0
      for (const more of [0.1, 1, 17])
        expect(headroom(session, gain + more)).toBeLessThanOrEqual(headroom(session, gain) + 1e-9)

      const planned = applyChanges(session, planSession(session).settings)
      expect(readSession(planned).ok).toBe(true)
      expect(planSession(planned).settings).toEqual([])
      const trade = gainTrade(session, 's', 10)
      if (trade) expect(trade.headroom).toBeCloseTo(trade.gain, 6)
    }),
    { seed: 20261124, numRuns: runs(2_000) },
  )
})

it('generated sessions come back from a file the same', () => {
  fc.assert(
    fc.property(file, (session) => {
      const reading = readSession(JSON.parse(writeSession(session)))
      expect(reading.ok && writeSession(reading.session)).toBe(writeSession(session))
    }),
    { seed: 7, numRuns: runs(300) },
  )
})
