import { describe, expect, it } from 'vitest'
import type { Route } from '#core/latency/routes'
import { routeTime } from '#core/latency/route-words'
import type { StripEvaluation } from '#core/evaluation/evaluate-session'
import { verdict } from '#core/evaluation/verdict'
import type { Strip } from '#core/model'
import { timeSession } from '#core/timing/time-session'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { example1, valid, withAt } from '../support/sessions'

const routesOf = (file: object): Route[] => evaluateSession(valid(file)).strips[0]?.latency ?? []
const named = (file: object, name: string) => routesOf(file).find((route) => route.route === name)
/** From the source to the capsule, 0.3 m at 20 °C: 343.2 m/s. */
const AIR = 0.874
const part = (file: object, name: string) =>
  named(file, 'software')?.parts.find((each) => each.name === name)?.milliseconds

describe('round trip ((b_in + b_out)·N + frames)/fs + fixed', () => {
  it('128 at 48 kHz, 1 + 1, 88 frames, 0.5 ms: 7.667 with 20 + 24 + 24 + 20 frames in its parts, and 0.874 ms of air', () => {
    // (2·128 + 88)/48 + 0.5 = 7.6667
    expect(named(example1(), 'software')?.milliseconds).toBeCloseTo(7.667 + AIR, 3)
    expect(part(example1(), 'buffer-in')).toBeCloseTo(128 / 48, 9)
    expect(part(example1(), 'safety-out')).toBeCloseTo(0.5, 9)
  })
  it('512 at 44.1 kHz, the same: 25.715 ms', () => {
    const file = withAt(example1(), ['system'], { sampleRate: 44100, bufferFrames: 512 })
    expect(named(file, 'software')?.milliseconds).toBeCloseTo(25.715 + AIR, 2)
  })
  it('plug-ins count once: 64 frames at 48 kHz are 1.333 ms more', () => {
    const file = withAt(example1(), ['strips', 0, 'monitor'], { pluginFrames: 64 })
    expect((named(file, 'software')?.milliseconds ?? 0) - 7.6667 - AIR).toBeCloseTo(1.333, 2)
  })
  it('direct: the air and the two converters, 40/48 ms; the air alone in analogue; no route where there is none', () => {
    expect(named(example1(), 'direct')?.milliseconds).toBeCloseTo(40 / 48 + AIR, 3)
    expect(named(withAt(example1(), ['gear', 2, 'direct'], 'analogue'), 'direct')?.milliseconds).toBeCloseTo(AIR, 3)
    expect(named(withAt(example1(), ['gear', 2, 'direct'], 'none'), 'direct')).toBeUndefined()
  })
  describe('a unit that prints no latency', () => {
    const unprinted = withAt(example1(), ['gear', 2, 'latency'], undefined)
    const measured = withAt(
      unprinted,
      ['system', 'roundTrips'],
      [{ sampleRate: 48000, bufferFrames: 128, milliseconds: 8.4 }],
    )

    it('its buffers alone are certain, 2·128/48 = 5.333 ms: that at least, and of the direct way the air alone', () => {
      expect(named(unprinted, 'software')).toMatchObject({
        milliseconds: expect.closeTo(5.333 + AIR, 3),
        atLeast: true,
      })
      expect(routeTime(named(unprinted, 'software') as Route)).toBe('at least 6.21 ms')
      expect(routeTime(named(unprinted, 'direct') as Route)).toBe('at least 0.87 ms')
      expect(named(example1(), 'software')?.atLeast).toBe(false)
    })
    it('mixed in analogue no converter is on the way: known', () => {
      expect(named(withAt(unprinted, ['gear', 2, 'direct'], 'analogue'), 'direct')?.atLeast).toBe(false)
    })
    it('measured, the round trip is known and the finding is gone; the direct way stays unknown', () => {
      expect(named(measured, 'software')).toMatchObject({ milliseconds: expect.closeTo(8.4 + AIR, 3), atLeast: false })
      expect(named(measured, 'direct')?.atLeast).toBe(true)
      const codes = (file: object) => evaluateSession(valid(file)).strips[0]?.findings.map(({ code }) => code)
      expect(codes(unprinted)).toContain('latency-unprinted')
      expect(codes(measured)).not.toContain('latency-unprinted')
    })
    it('a recommendation and a cell say so too', () => {
      const { recommendations, matrix } = timeSession(valid(unprinted))
      expect(recommendations[0]).toMatchObject({ atLeast: true })
      expect(recommendations[0]?.reason).toContain('add an unknown delay: measure the round trip')
      expect(matrix.every((cell) => cell.atLeast)).toBe(true)
      expect(timeSession(valid(measured)).matrix.every((cell) => !cell.atLeast)).toBe(true)
    })
    it('the verdict gives no ± for what is not known', () => {
      const session = valid(unprinted)
      const [strip, evaluated] = [session.strips[0] as Strip, evaluateSession(session).strips[0] as StripEvaluation]
      const listening = verdict(session, { ...strip, monitor: { ...strip.monitor, route: 'software' } }, evaluated)
      expect(listening.latency.headline).toBe('Monitoring delay at least 6.21 ms')
    })
  })
  it('a double-buffering driver holds two each way', () => {
    const file = withAt(
      withAt(example1(), ['gear', 2, 'latency', 'buffersIn'], 2),
      ['gear', 2, 'latency', 'buffersOut'],
      2,
    )
    expect(named(file, 'software')?.milliseconds).toBeCloseTo((4 * 128 + 88) / 48 + 0.5 + AIR, 3)
  })
  it.each([
    [0.3, 0.874],
    [1, 2.914],
    [1.001, 2.917],
    [2, 5.827],
  ])('the time in air counts whole at any distance, on both routes: %d m %d ms', (distance, expected) => {
    const file = withAt(example1(), ['strips', 0, 'stages', 0, 'settings', 'distance'], distance)
    expect(Math.abs((part(file, 'air') ?? 0) - expected)).toBeLessThan(0.001)
    expect(named(file, 'direct')?.parts[0]?.milliseconds).toBe(part(file, 'air'))
  })
  it('cold air is slower: 0 °C, 331.3 m/s', () => {
    const cold = withAt(withAt(example1(), ['strips', 0, 'stages', 0, 'settings', 'distance'], 2), ['room'], {
      temperature: 0,
    })
    expect(part(cold, 'air')).toBeCloseTo(2000 / 331.3, 6)
  })
})
