import { describe, expect, it } from 'vitest'
import type { LevelsReport } from '#core/measure/levels/measure-levels'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import type { Signal, SignalKind } from '#core/signals/signal'
import { longestSignal, makeSignal, signalFile, signalNames } from '#core/signals/signal'
import { fed } from '../support/bench'

const signals: Record<SignalKind, Signal> = {
  sine: { kind: 'sine', frequency: 997, level: -20, seconds: 2 },
  silence: { kind: 'silence', seconds: 1 },
  white: { kind: 'white', level: -20, seconds: 2 },
  pink: { kind: 'pink', level: -20, seconds: 2 },
  sweep: { kind: 'sweep', level: -6, seconds: 2 },
  pulses: { kind: 'pulses', level: -6, seconds: 4 },
  polarity: { kind: 'polarity', level: -12, seconds: 2 },
  sequence: { kind: 'sequence', level: -12 },
  stairs: { kind: 'stairs', frequency: 200, levels: [-10, -30], stepSeconds: 1 },
}
function report(...made: Parameters<typeof signalFile>): LevelsReport {
  const result = fed(new LevelsMeter(), signalFile(...made))
  if (!result.ok) throw new Error(result.fault.message)
  return result.report
}

const bytesOf = (samples: Float64Array) => Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength)

describe('test signals', () => {
  it.each(Object.keys(signalNames) as SignalKind[])(
    '%s is the same every time, and within full scale at every rate',
    (kind) => {
      for (const rate of [44_100, 192_000]) {
        const samples = makeSignal(signals[kind], rate)
        // As bytes: to compare a million numbers one by one takes seconds.
        expect(Buffer.compare(bytesOf(samples), bytesOf(makeSignal(signals[kind], rate)))).toBe(0)
        expect(samples.every((x) => Math.abs(x) <= 1)).toBe(true)
        expect(samples.some((x) => x !== 0)).toBe(kind !== 'silence')
      }
    },
  )
  it.each(['sine', 'sweep', 'pulses', 'polarity', 'sequence', 'stairs'] as const)(
    '%s has the peak that was asked for, within 0.01 dB of it',
    (kind) => {
      const signal = signals[kind]
      const asked = 'level' in signal ? signal.level : -10
      const peak = makeSignal(signal, 48_000).reduce((most, x) => Math.max(most, Math.abs(x)), 0)
      expect(20 * Math.log10(peak)).toBeGreaterThan(asked - 0.02)
      expect(20 * Math.log10(peak)).toBeLessThanOrEqual(asked + 1e-9)
    },
  )
  it('begins and ends in silence where an edge would click', () => {
    for (const kind of ['sine', 'white', 'pink', 'sweep'] as const) {
      const samples = makeSignal(signals[kind], 48_000)
      for (const edge of [samples[0], samples.at(-1)]) expect(Math.abs(edge ?? 1)).toBeLessThan(1e-3)
    }
  })
  it('a polarity pulse goes up first, and has no mean', () => {
    const samples = makeSignal(signals.polarity, 48_000)
    const first = samples.find((x) => x !== 0) ?? 0
    expect(first).toBeGreaterThan(0)
    expect(Math.abs(samples.reduce((sum, x) => sum + x, 0))).toBeLessThan(1e-9)
  })
  it('stands on the channels that were chosen', () => {
    const peaks = (layout: 'mono' | 'both' | 'left' | 'right') =>
      report(signals.sine, 48_000, 'float', layout).channels.map(({ peak }) => peak !== null)
    expect(peaks('mono')).toEqual([true])
    expect(peaks('both')).toEqual([true, true])
    expect(peaks('left')).toEqual([true, false])
    expect(peaks('right')).toEqual([false, true])
  })
  it('integer files are dithered: 16 bits of a whisper keep its level over a floor of −93.3 dBFS; silence stays silence', () => {
    const [whisper] = report({ kind: 'sine', frequency: 997, level: -90, seconds: 4 }, 48_000, 16, 'mono').channels
    // −90 dBFS and the floor of −93.32 together.
    expect(whisper?.rms).toBeCloseTo(10 * Math.log10(10 ** -9 + 10 ** -9.332), 0)
    expect(report(signals.silence, 48_000, 16, 'mono').channels[0]?.peak).toBeNull()
  })
  it('a longest length that fits into memory: 23 minutes at 48 kHz', () => {
    expect(longestSignal(48_000) / 60).toBeCloseTo(23.3, 1)
    expect(longestSignal(192_000) / 60).toBeCloseTo(5.8, 1)
  })
})
