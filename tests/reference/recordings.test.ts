import { describe, expect, it } from 'vitest'
import { measureBalance } from '#core/measure/balance'
import { burstsOf } from '#core/measure/bursts'
import { findHum } from '#core/measure/hum'
import { SpectrumMeter } from '#core/measure/levels/spectrum'
import { LevelsMeter } from '#core/measure/levels/measure-levels'
import { measureLoopback } from '#core/measure/loopback'
import { measureNoise } from '#core/measure/noise'
import { measurePlateaus } from '#core/measure/plateaus'
import { channelKeeper, lagBetween, meterOf } from '#core/measure/question'
import { fitSine } from '#core/measure/sine-fit'
import { measureSpectrum, powerBetween } from '#core/measure/stretch-spectrum'
import { measureTone } from '#core/measure/tone'
import { joined } from '#core/numeric/joined'
import {
  pinkNoise,
  polarityPulses,
  pulseTrain,
  sequenceRepeated,
  sine,
  staircase,
  whiteNoise,
} from '#core/signals/generate'
import { makeSignal } from '#core/signals/signal'
import { writeWav } from '#core/signals/write-wav'
import { delayed } from '#core/signals/fractional-delay'
import { fed } from '../support/bench'

const rate = 48_000
const near = (actual: number | null | undefined, expected: number, tolerance: number) =>
  expect(Math.abs((actual ?? Number.NaN) - expected), `${actual} against ${expected}`).toBeLessThanOrEqual(tolerance)
const plus = (...signals: Float64Array[]) =>
  (signals[0] as Float64Array).map((x, i) => signals.slice(1).reduce((sum, each) => sum + (each[i] ?? 0), x))
const ok = <T extends object>(found: T | { code: string; message: string }): T => {
  if ('code' in found) throw new Error(found.message)
  return found
}

describe('a tone', () => {
  it.each([997, 60, 12_345.6])('of %f Hz: frequency and level, whatever its phase', (frequency) => {
    for (const phase of [0, 1, 2.5]) {
      const fit = fitSine(plus(sine(rate, 3, frequency, -33, phase), whiteNoise(rate, 3, -90, 3)), rate)
      near(fit?.frequency, frequency, 0.002)
      near(20 * Math.log10(fit?.amplitude ?? 0), -33, 0.002)
    }
  })
  it('what is left is the noise that was put in: −90 dBFS of it, within 20 Hz to 20 kHz', () => {
    const tone = ok(measureTone(plus(sine(rate, 10, 997, -60), whiteNoise(rate, 10, -90, 5)), rate))
    near(tone.residual, -90 + 10 * Math.log10(19_980 / 24_000), 0.1)
    near(tone.residualA, -90 + 10 * Math.log10(19_980 / 24_000) - 2.05, 0.15)
    near(tone.level, -60, 0.005)
  })
  it('harmonics by their order: 1 % of the third, 0.1 % of the second', () => {
    const tone = ok(
      measureTone(plus(sine(rate, 4, 1000, -6), sine(rate, 4, 2000, -66), sine(rate, 4, 3000, -46)), rate),
    )
    near(tone.harmonics.find(({ order }) => order === 3)?.level, -46, 0.02)
    near(tone.harmonics.find(({ order }) => order === 2)?.level, -66, 0.02)
    // 1 % and 0.1 % together: 20 lg √(0.01² + 0.001²).
    near(tone.thdN, 10 * Math.log10(0.0001 + 0.000_001), 0.02)
  })
  it('silence before and after is left out', () => {
    const tone = ok(
      measureTone(joined([new Float64Array(rate), sine(rate, 3, 997, -20), new Float64Array(rate)]), rate),
    )
    near(tone.level, -20, 0.005)
    near(tone.seconds, 2.8, 0.11)
  })
  it('a knock and a dropout are left out: they are no distortion', () => {
    const clean = plus(sine(rate, 8, 997, -1), whiteNoise(rate, 8, -95, 5))
    const knocked = clean.map((x, i) => x + (i > 2 * rate && i < 2.05 * rate ? 0.03 * Math.sin(i * i) : 0))
    const dropped = joined([clean.subarray(0, 3 * rate), clean.subarray(3 * rate + 64)])
    const undisturbed = ok(measureTone(clean, rate))
    expect(undisturbed.leftOut).toBe(0)
    for (const samples of [knocked, dropped]) {
      const tone = ok(measureTone(samples, rate))
      near(tone.thdN, undisturbed.thdN ?? 0, 0.15)
      near(tone.level, -1, 0.001)
      near(tone.seconds + tone.leftOut, 7.8, 0.15)
      expect(tone.leftOut).toBeGreaterThan(2)
    }
  })
  it('none is told in words', () => {
    expect(measureTone(new Float64Array(rate), rate)).toMatchObject({ code: 'no-tone' })
    expect(measureTone(whiteNoise(rate, 3, -20, 3), rate)).toMatchObject({ code: 'no-tone' })
  })
  it('the steps of a staircase, in order', () => {
    const { plateaus } = ok(measurePlateaus(staircase(rate, 2, 997, [-10, -20, -45, -60]), rate))
    plateaus.forEach(({ level }, i) => near(level, [-10, -20, -45, -60][i] as number, 0.01))
    expect(plateaus).toHaveLength(4)
  })
})

describe('noise and hum', () => {
  const hum = (mains: number, levels: readonly number[]) =>
    levels.map((level, i) => sine(rate, 12, (i + 1) * mains, level, i))
  it.each([50, 60] as const)('of %i Hz: each multiple’s level, within 0.2 dB, and the noise without them', (mains) => {
    const noise = ok(measureNoise(plus(whiteNoise(rate, 12, -95, 2), ...hum(mains, [-80, -95, -85])), rate))
    expect(noise.hum?.mains).toBe(mains)
    noise.hum?.lines.slice(0, 3).forEach(({ level }, i) => near(level, [-80, -95, -85][i] as number, 0.2))
    near(noise.withoutHum, -95 + 10 * Math.log10(19_980 / 24_000) - 2.05, 0.15)
    expect(noise.weighted).toBeGreaterThan(noise.withoutHum)
  })
  it('a click and a knock are left out; what is left is the noise', () => {
    const clean = whiteNoise(rate, 15, -95, 2)
    const knocked = clean.map(
      (x, i) => x + (i > 2000 && i < 2400 ? 0.1 : 0) + (i > 7.2 * rate && i < 7.3 * rate ? 0.01 * Math.sin(i) : 0),
    )
    const [noise, disturbed] = [ok(measureNoise(clean, rate)), ok(measureNoise(knocked, rate))]
    expect(noise).toMatchObject({ seconds: 15, leftOut: 0 })
    expect(disturbed).toMatchObject({ seconds: 7, leftOut: 8 })
    near(disturbed.weighted, noise.weighted, 0.1)
  })
  it('so is digital silence before it', () => {
    const clean = whiteNoise(rate, 8, -95, 2)
    const late = ok(measureNoise(joined([new Float64Array(5 * rate), clean]), rate))
    expect(late).toMatchObject({ seconds: 8, leftOut: 5 })
    near(late.weighted, ok(measureNoise(clean, rate)).weighted, 0.01)
  })
  it('a mains that is a little off is found where it is', () => {
    const noise = ok(measureNoise(plus(whiteNoise(rate, 12, -100, 2), ...hum(49.88, [-85, -95, -88])), rate))
    near(noise.hum?.frequency, 49.88, 0.01)
  })
  it('noise alone has no hum, pink or white', () => {
    for (const samples of [whiteNoise(rate, 12, -60, 9), pinkNoise(rate, 12, -60, 9)])
      expect(ok(measureNoise(samples, rate)).hum).toBeNull()
    const meter = new SpectrumMeter(rate, 0.4)
    meter.frames(new Float64Array(rate), rate)
    expect(findHum(meter.end() ?? { step: 1, powers: new Float64Array(2) })).toBeNull()
  })
  it('digital silence and a second of noise are refused', () => {
    expect(measureNoise(new Float64Array(10 * rate), rate)).toMatchObject({ code: 'silent' })
    expect(measureNoise(whiteNoise(rate, 1, -60, 1), rate)).toMatchObject({ code: 'too-short' })
  })
})

describe('a stretch’s spectrum', () => {
  it('white noise rises by 1 dB from third octave to third octave, and all bands together are the whole', () => {
    const { thirds, level } = ok(measureSpectrum(whiteNoise(rate, 15, -20, 4), rate))
    expect(thirds).toHaveLength(31)
    for (const { frequency, level: band } of thirds.slice(6))
      near(band, -20 + 10 * Math.log10((frequency * (10 ** 0.05 - 10 ** -0.05)) / 24_000), 0.7)
    near(10 * Math.log10(thirds.reduce((sum, band) => sum + 10 ** ((band.level ?? -300) / 10), 0)), level ?? 0, 0.5)
  })
  it('pink noise has the same power in every third octave, 0.6 dB from 125 Hz on', () => {
    const { thirds } = ok(measureSpectrum(pinkNoise(rate, 25, -20, 4), rate))
    const levels = thirds.slice(8).map((band) => band.level ?? 0)
    const middle = levels.reduce((a, b) => a + b) / levels.length
    for (const each of levels) near(each, middle, 0.6)
  })
  it('a sine has its level in its own band, at every rate', () => {
    for (const each of [44_100, 96_000]) {
      const { thirds } = ok(measureSpectrum(sine(each, 3, 1000, -12), each))
      near(thirds.find(({ frequency }) => Math.abs(frequency - 1000) < 1)?.level, -12, 0.02)
    }
  })
  it('a line across two bands is shared', () => {
    expect(powerBetween({ step: 10, powers: Float64Array.from([0, 0, 4, 0]) }, 15, 20)).toBe(2)
  })
  it('only the chosen stretch counts', () => {
    const bytes = writeWav([joined([sine(rate, 2, 500, -10), sine(rate, 2, 4000, -30)])], rate, 'float')
    const answer = fed(meterOf({ kind: 'spectrum', channel: 1, fromSeconds: 2.2, seconds: 1.5 }), bytes)
    expect(answer.ok && 'found' in answer && 'level' in answer.found).toBe(true)
    if (answer.ok && 'found' in answer && 'thirds' in answer.found) near(answer.found.level, -30, 0.05)
  })
})

describe('two channels', () => {
  const pulses = polarityPulses(rate, 5, 0.5, -12)
  it.each([
    [0.37, 1],
    [-2.2, -1],
    [0, 1],
  ])('that differ by %f dB with polarity %i', (difference, way) => {
    const noise = (seed: number) => whiteNoise(rate, 5, -90, seed)
    const found = ok(
      measureBalance(
        plus(pulses, noise(1)),
        plus(
          pulses.map((x) => way * x * 10 ** (difference / 20)),
          noise(2),
        ),
        rate,
      ),
    )
    near(found.difference, difference, 0.03)
    expect(found.sameWay).toBe(way === 1)
    expect(found.keepsPolarity).toEqual([true, way === 1])
    expect(found.likeness).toBeGreaterThan(0.99)
  })
  it('recorded one after the other and laid side by side: the same', () => {
    for (const frames of [1234, 30_000]) {
      // Pulses come every 24 000 frames: which of them answers which cannot be told, and does not matter.
      const later = joined([new Float64Array(frames), pulses.map((x) => -0.8 * x)]).subarray(0, pulses.length)
      const found = ok(
        measureBalance(plus(pulses, whiteNoise(rate, 5, -90, 1)), plus(later, whiteNoise(rate, 5, -90, 2)), rate),
      )
      near(found.difference, 20 * Math.log10(0.8), 0.03)
      near((found.lagFrames + 48_000) % 24_000, frames % 24_000, 0.05)
      expect(found).toMatchObject({ sameWay: false, keepsPolarity: [true, false] })
    }
  })
  it('strangers are not alike', () =>
    expect(ok(measureBalance(pulses, whiteNoise(rate, 5, -30, 3), rate)).likeness).toBeLessThan(0.5))
  it('by a tone only their difference is told', () => {
    const tone = sine(rate, 4, 997, -20)
    expect(
      ok(
        measureBalance(
          tone,
          tone.map((x) => 0.5 * x),
          rate,
        ),
      ),
    ).toMatchObject({ keepsPolarity: null, sameWay: true })
    near(
      ok(
        measureBalance(
          tone,
          tone.map((x) => 0.5 * x),
          rate,
        ),
      ).difference,
      -6.02,
      0.01,
    )
  })
  it('a silent one is told', () =>
    expect(measureBalance(pulses, new Float64Array(pulses.length), rate)).toMatchObject({ code: 'silent' }))
})

describe('repeats of a lag', () => {
  it('bursts are told apart by the silence between them', () => {
    expect(burstsOf(sequenceRepeated(rate, 12, 5, -12), rate)).toHaveLength(5)
    expect(burstsOf(new Float64Array(100), rate)).toEqual([])
  })
  it('each pass has its own lag; the spread is theirs', () => {
    const signal = sequenceRepeated(rate, 14, 4, -12)
    const found = measureLoopback(signal, delayed(signal, signal.length + 9000, 512.25, 0), rate)
    expect(found?.repeats).toHaveLength(4)
    near(found?.lagFrames, 512.25, 0.01)
    near(found?.spreadFrames, 0, 0.01)
    expect(found?.confidence ?? 0).toBeGreaterThan(0.66)
  })
  it('a train of pulses is not taken for one that is a pulse late', () => {
    const signal = pulseTrain(rate, 12, 1, -6)
    const found = measureLoopback(signal, delayed(signal, signal.length + 40_000, 20_000.5, 0), rate)
    near(found?.lagFrames, 20_000.5, 0.02)
    expect(found?.confidence ?? 0).toBeGreaterThan(0.66)
  })
  it('two clocks that differ by 40 ppm: the return’s is the faster, so the lag shrinks', () => {
    const signal = sequenceRepeated(rate, 14, 5, -12)
    near(measureLoopback(signal, delayed(signal, signal.length + 2000, 300, 40), rate)?.driftPpm, -40, 2)
  })
  it('played and recorded in two files; at two rates it is refused', () => {
    const signal = makeSignal({ kind: 'sequence', level: -12 }, rate)
    const keep = (samples: Float64Array, at: number) => fed(channelKeeper(1), writeWav([samples], at, 24))
    const found = lagBetween(keep(signal, rate), keep(delayed(signal, signal.length, 700.5, 0), rate))
    if (!found.ok) throw new Error(found.fault.message)
    near(found.found.lagFrames, 700.5, 0.02)
    const wrong = lagBetween(keep(signal, rate), keep(signal, 44_100))
    expect(!wrong.ok && wrong.fault.code).toBe('rates-differ')
  })
})

describe('the level over time', () => {
  const overview = (samples: Float64Array) => {
    const result = fed(new LevelsMeter(), writeWav([samples], rate, 'float'))
    if (!result.ok) throw new Error(result.fault.message)
    return result.report.channels[0]?.overview
  }
  it('extremes and mean square of every tenth of a second', () => {
    const found = overview(joined([sine(rate, 1, 1000, -6), new Float64Array(rate)]))
    expect(found?.seconds).toBeCloseTo(0.1, 12)
    expect(found?.low).toHaveLength(20)
    near(found?.high[3], 0.501, 0.001)
    near(found?.low[3], -0.501, 0.001)
    near(10 * Math.log10(2 * (found?.power[3] ?? 0)), -6, 0.01)
    expect(found?.high[15]).toBe(0)
  })
  it('of a long file no more than 1,200 stretches are kept, and no peak is lost', () => {
    const samples = whiteNoise(8000, 400, -30, 2)
    samples[1_234_567] = 0.99
    const meter = new LevelsMeter()
    const result = fed(meter, writeWav([samples], 8000, 'float'))
    const found = result.ok ? result.report.channels[0]?.overview : undefined
    expect(found?.low.length).toBeLessThanOrEqual(1200)
    near(found?.high[Math.floor(1_234_567 / 8000 / (found?.seconds ?? 1))], 0.99, 1e-6)
    near((found?.seconds ?? 0) * (found?.low.length ?? 0), 400, 0.5)
  })
})
