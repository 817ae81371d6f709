import { describe, expect, it } from 'vitest'
import type { Route } from '#core/latency/routes'
import { evaluateSession } from '#core/evaluation/evaluate-session'
import { example1, valid, withAt } from '../support/sessions'

const routesOf = (file: object): Route[] => evaluateSession(valid(file)).strips[0]?.latency ?? []
const named = (file: object, name: string) => routesOf(file).find((route) => route.route === name)
const part = (file: object, name: string) =>
  named(file, 'software')?.parts.find((each) => each.name === name)?.milliseconds

describe('round trip ((b_in + b_out)·N + frames)/fs + fixed', () => {
  it('128 at 48 kHz, 1 + 1, 88 frames, 0.5 ms: 7.667 → with 20 + 24 + 24 + 20 frames in its parts', () => {
    // (2·128 + 88)/48 + 0.5 = 7.6667
    expect(named(example1(), 'software')?.milliseconds).toBeCloseTo(7.667, 3)
    expect(part(example1(), 'buffer-in')).toBeCloseTo(128 / 48, 9)
    expect(part(example1(), 'safety-out')).toBeCloseTo(0.5, 9)
  })
  it('512 at 44.1 kHz, the same: 25.715 ms', () => {
    const file = withAt(example1(), ['system'], { sampleRate: 44100, bufferFrames: 512 })
    expect(named(file, 'software')?.milliseconds).toBeCloseTo(25.715, 3)
  })
  it('plug-ins count once: 64 frames at 48 kHz are 1.333 ms more', () => {
    const file = withAt(example1(), ['strips', 0, 'monitor'], { pluginFrames: 64 })
    expect((named(file, 'software')?.milliseconds ?? 0) - 7.6667).toBeCloseTo(1.333, 2)
  })
  it('direct: the two converters, 40/48 ms; nothing in analogue; no route where there is none', () => {
    expect(named(example1(), 'direct')?.milliseconds).toBeCloseTo(40 / 48, 9)
    expect(named(withAt(example1(), ['gear', 2, 'direct'], 'analogue'), 'direct')?.milliseconds).toBe(0)
    expect(named(withAt(example1(), ['gear', 2, 'direct'], 'none'), 'direct')).toBeUndefined()
  })
  it('a double-buffering driver holds two each way', () => {
    const file = withAt(
      withAt(example1(), ['gear', 2, 'latency', 'buffersIn'], 2),
      ['gear', 2, 'latency', 'buffersOut'],
      2,
    )
    expect(named(file, 'software')?.milliseconds).toBeCloseTo((4 * 128 + 88) / 48 + 0.5, 9)
  })
  it('air counts beyond 1 m: 2 m at 20 °C are 5.83 ms on both routes, 1 m none', () => {
    const far = withAt(example1(), ['strips', 0, 'stages', 0, 'settings', 'distance'], 2)
    const near = withAt(example1(), ['strips', 0, 'stages', 0, 'settings', 'distance'], 1)
    expect(part(far, 'air')).toBeCloseTo(2000 / 343.2, 2)
    expect(named(far, 'direct')?.parts[0]?.name).toBe('air')
    expect(part(near, 'air')).toBeUndefined()
  })
  it('cold air is slower: 0 °C, 331.3 m/s', () => {
    const cold = withAt(withAt(example1(), ['strips', 0, 'stages', 0, 'settings', 'distance'], 2), ['room'], {
      temperature: 0,
    })
    expect(part(cold, 'air')).toBeCloseTo(2000 / 331.3, 6)
  })
})
