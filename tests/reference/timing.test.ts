import { Matrix, QrDecomposition } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { recordingBytes } from '#core/latency/disk'
import type { AnsweredTrial, TrialAnswer, TrialPreference } from '#core/latency/guided-trial'
import { guidedTrial } from '#core/latency/guided-trial'
import type { LoadModel } from '#core/latency/cpu-load'
import { loadAt, loadModel, sustainable } from '#core/latency/cpu-load'
import { rateMismatch } from '#core/latency/rate-mismatch'
import { modelRoundTrip } from '#core/latency/round-trip'
import { fitRoundTrips } from '#core/latency/round-trip-fit'
import { leastSquares } from '#core/numeric/least-squares'
import { studentQuantile } from '#core/numeric/laws'
import type { AudioInterface } from '#core/gear'
import type { RoundTrip } from '#core/model'
import type { Session } from '#core/session'
import { seeded } from '#core/numeric/random'
import { timeSession } from '#core/timing/time-session'
import { framesToMilliseconds, frames, hz } from '#core/units'
import { twoMixes } from '../support/desk'
import { example1, valid } from '../support/sessions'

const trip = (sampleRate: number, bufferFrames: number, milliseconds: number) =>
  ({ sampleRate, bufferFrames, milliseconds }) as RoundTrip
const unit = example1().gear as unknown as AudioInterface[]
const timed = (system: object, more: object = {}): Session =>
  valid({ ...example1(), ...more, system: { sampleRate: 48000, bitDepth: 24, bufferFrames: 128, ...system } })
const cell = (session: Session, rate: number, size: number) =>
  timeSession(session).matrix.find((each) => each.sampleRate === rate && each.bufferFrames === size)
const codes = (session: Session) => timeSession(session).findings.map((each) => each.code)

describe('buffers and round trips (arithmetic of N/fs)', () => {
  it.each([
    [44_100, [0.726, 1.451, 2.902, 5.805, 11.61]],
    [48_000, [0.667, 1.333, 2.667, 5.333, 10.667]],
    [96_000, [0.333, 0.667, 1.333, 2.667, 5.333]],
  ])('at %i Hz, 32 to 512 frames, to 0.001 ms', (rate, expected) => {
    expected.forEach((each, i) =>
      expect(Math.abs(framesToMilliseconds(frames(32 * 2 ** i), hz(rate)) - each)).toBeLessThan(0.0006),
    )
    expected.forEach((each, i) =>
      expect(
        Math.abs((cell(timed({}), rate, 32 * 2 ** i)?.bufferMs ?? (1000 * 32 * 2 ** i) / rate) - each),
      ).toBeLessThan(0.0006),
    )
  })
  it('128 at 48 kHz, 88 frames, 0.5 ms: 7.667; 512 at 44.1 kHz: 25.715', () => {
    expect(modelRoundTrip(unit[2] as AudioInterface, {}, 48_000, 128)).toBeCloseTo(7.667, 3)
    expect(modelRoundTrip(unit[2] as AudioInterface, {}, 44_100, 512)).toBeCloseTo(25.715, 3)
  })
  it('a driver’s 14.9 in and 14.7 out at 44.1 kHz and 512 frames predict 9.10 and 8.90 at 256 (common practice reading)', () => {
    for (const [figure, predicted] of [
      [14.9, 9.1],
      [14.7, 8.9],
    ] as const) {
      const { fit } = fitRoundTrips([trip(44_100, 512, figure)], 1)
      expect(fit?.fixedMs).toBeCloseTo(figure - 11.61, 2)
      expect(fit?.predict(44_100, 256).milliseconds).toBeCloseTo(predicted, 2)
    }
  })
  it('a shared driver adds its period on each way', () => {
    expect(
      modelRoundTrip(unit[2] as AudioInterface, { driver: 'shared', sharedPeriod: 10 as never }, 48_000, 128),
    ).toBeCloseTo(27.667, 3)
  })
})

describe('least squares', () => {
  it('agrees with an independent library (ml-matrix, QR) to 1e-9', () => {
    const rows = Array.from({ length: 17 }, (_, i) => [
      (1000 * (32 + 37 * i)) / (i % 2 ? 48_000 : 44_100),
      1000 / (i % 2 ? 48_000 : 44_100),
      1,
    ])
    const y = rows.map(([a = 0, b = 0], i) => 2.1 * a + 91 * b + 0.43 + Math.sin(7 * i))
    const theirs = new QrDecomposition(new Matrix(rows)).solve(Matrix.columnVector(y)).to1DArray()
    const ours = leastSquares(rows, y)
    ours?.coefficients.forEach((value, k) =>
      expect(Math.abs(value - (theirs[k] ?? 0))).toBeLessThan(1e-9 * Math.max(1, Math.abs(value))),
    )
    const inverse = new Matrix(rows).transpose().mmul(new Matrix(rows))
    expect(
      (ours?.inverse[0]?.[0] ?? 0) * inverse.get(0, 0) +
        (ours?.inverse[0]?.[1] ?? 0) * inverse.get(1, 0) +
        (ours?.inverse[0]?.[2] ?? 0) * inverse.get(2, 0),
    ).toBeCloseTo(1, 6)
  })
  it('columns that cannot be told apart are refused', () => {
    expect(
      leastSquares(
        [
          [1, 2],
          [2, 4],
          [3, 6],
        ],
        [1, 2, 3],
      ),
    ).toBeNull()
    expect(leastSquares([[1, 2]], [1])).toBeNull()
  })
  it.each([
    [0.95, 10, 2.228],
    [0.95, 5, 2.571],
    [0.95, 1, 12.706],
    [0.99, 20, 2.845],
  ])('Student’s t of %d and %i degrees: %d (tables)', (p, n, t) => {
    expect(studentQuantile(p, n)).toBeCloseTo(t, 2)
  })
})

describe('the fit of measured round trips', () => {
  it('recovers planted parameters within its stated spread in 95 % of 1,000 seeded runs of ±0.05 ms', () => {
    let seed = 20261124
    const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647
    const planted = { buffers: 2, frames: 140, fixedMs: 1.2 }
    let inside = 0
    for (let run = 0; run < 1000; run++) {
      const measured = [44_100, 48_000, 96_000].flatMap((rate) =>
        [64, 128, 256, 512].map((size) =>
          trip(
            rate,
            size,
            (1000 * (planted.buffers * size + planted.frames)) / rate + planted.fixedMs + 0.1 * (random() - 0.5),
          ),
        ),
      )
      const { fit, outliers } = fitRoundTrips(measured, 2)
      expect(outliers).toEqual([])
      expect(fit?.separable).toBe(true)
      if (
        (['buffers', 'frames', 'fixedMs'] as const).every(
          (key) => Math.abs((fit?.[key] ?? 0) - planted[key]) <= (fit?.spreads[key] ?? 0),
        )
      )
        inside++
    }
    expect(inside).toBeGreaterThanOrEqual(950)
  })
  it('one rate: frames and fixed time stay a sum, and it says so', () => {
    const { fit, remarks } = fitRoundTrips(
      [64, 128, 256].map((size) => trip(48_000, size, (2000 * size) / 48_000 + 3)),
      2,
    )
    expect(fit).toMatchObject({ separable: false, frames: 0 })
    expect(fit?.buffers).toBeCloseTo(2, 9)
    expect(fit?.fixedMs).toBeCloseTo(3, 9)
    expect(remarks.join()).toContain('sum is kept')
  })
  it('one reading: the driver’s buffers ± 1, and the rest from it', () => {
    const { fit, remarks } = fitRoundTrips([trip(48_000, 128, 9)], 3)
    expect(fit?.buffers).toBe(3)
    expect(fit?.fixedMs).toBeCloseTo(9 - 8, 9)
    // At twice the buffer one buffer more or less is 128/48 ms.
    expect(fit?.predict(48_000, 256).spread).toBeCloseTo(128 / 48, 3)
    expect(fit?.predict(48_000, 256).u).toBeCloseTo(128 / 48 / Math.sqrt(3), 2)
    expect(remarks.join()).toContain('are assumed')
  })
  it('a negative constant is refused with a reason', () => {
    const { fit, remarks } = fitRoundTrips([trip(48_000, 512, 10)], 2)
    expect(fit).toBeNull()
    expect(remarks.join()).toContain('not possible')
  })
  it('two readings: 48 kHz/32 3.708 ms and 44.1 kHz/64 5.443 ms come from 2 buffers, 90 frames, 0.5 ms: 1,024 is 45.04 ms', () => {
    const { fit } = fitRoundTrips([trip(48_000, 32, 3.708), trip(44_100, 64, 5.443)], 2)
    expect(fit?.buffers).toBe(2)
    expect(fit?.frames).toBeCloseTo(90, -0.3)
    expect(fit?.fixedMs).toBeCloseTo(0.5, 1)
    expect(fit?.predict(48_000, 1024).milliseconds).toBeCloseTo(45.04, 1)
  })
  it('nothing is negative: readings to 0.05 ms of 2 buffers and 60 frames keep every prediction inside what is said', () => {
    let inside = 0
    let all = 0
    for (let seed = 1; seed <= 60; seed++) {
      const random = seeded(seed)
      const truth = (rate: number, size: number) => (1000 * (2 * size + 60)) / rate
      const measured = [44_100, 48_000].flatMap((rate) =>
        [64, 128, 256].map((size) => trip(rate, size, truth(rate, size) + 0.1 * (random() - 0.5))),
      )
      const { fit } = fitRoundTrips(measured, 2)
      expect(fit?.fixedMs).toBeGreaterThanOrEqual(0)
      expect(fit?.frames).toBeGreaterThanOrEqual(0)
      for (const rate of [44_100, 48_000, 96_000]) {
        for (const size of [64, 128, 256, 512]) {
          const { milliseconds = 0, spread = 0 } = fit?.predict(rate, size) ?? {}
          all++
          if (Math.abs(milliseconds - truth(rate, size)) <= (spread ?? 0)) inside++
        }
      }
    }
    expect(inside / all).toBeGreaterThanOrEqual(0.95)
  })
  it('one buffer size at two rates: every number of buffers that fits is covered at other sizes', () => {
    const measured = [44_100, 48_000].map((rate) => trip(rate, 128, (1000 * (3 * 128 + 40)) / rate + 0.4))
    const { fit, remarks } = fitRoundTrips(measured, 2)
    expect(Number.isInteger(2 * (fit?.buffers ?? 0.1))).toBe(true)
    expect(remarks.join()).toMatch(/another buffer size/)
    expect(remarks.join()).not.toMatch(/second rate/)
    // The truth at 512 frames is 3 buffers: it lies inside what is said.
    const { milliseconds = 0, spread = 0 } = fit?.predict(48_000, 512) ?? {}
    expect(Math.abs(milliseconds - ((1000 * (3 * 512 + 40)) / 48_000 + 0.4))).toBeLessThanOrEqual((spread ?? 0) + 1e-6)
  })
  it('one rate: at the same rate the prediction is sure, at another it carries the unknown split', () => {
    const { fit, remarks } = fitRoundTrips(
      [64, 128, 256].map((size) => trip(48_000, size, (1000 * (2 * size + 144)) / 48_000)),
      2,
    )
    expect(remarks.join()).toMatch(/second rate/)
    const at = (rate: number) => fit?.predict(rate, 128)
    expect(at(48_000)?.spread ?? 0).toBeLessThan(1e-6)
    const truth = (1000 * (2 * 128 + 144)) / 96_000
    expect(Math.abs((at(96_000)?.milliseconds ?? Number.NaN) - truth)).toBeLessThanOrEqual(at(96_000)?.spread ?? 0)
  })
  it('of very many readings the last forty are fitted, and the table has 32 rates and buffers at most', () => {
    const many = Array.from({ length: 500 }, (_, i) => trip(44_100 + i, 32 + i, 1 + (2000 * (32 + i)) / (44_100 + i)))
    const { fit, remarks } = fitRoundTrips(many, 2)
    expect([fit?.points, remarks[0]]).toEqual([40, 'The fit uses the last 40 readings.'])
    expect(fit?.buffers).toBe(2)
    expect(timeSession(timed({ roundTrips: many })).matrix).toHaveLength(32 * 32)
    expect(cell(timed({ roundTrips: many }), 48_000, 128)).toBeDefined()
  })
  it('an outlier is named and left out', () => {
    const good = [44_100, 48_000].flatMap((rate) =>
      [64, 128, 256, 512].map((size, i) => trip(rate, size, (1000 * (2 * size + 100)) / rate + 0.5 + 0.02 * (i % 2))),
    )
    const odd = trip(48_000, 128, 14)
    const { fit, outliers } = fitRoundTrips([...good, odd], 2)
    expect(outliers).toEqual([odd])
    expect(fit?.buffers).toBeCloseTo(2, 1)
    expect(codes(timed({ roundTrips: [...good, odd] }))).toContain('outlier')
  })
})

describe('the machine', () => {
  it('two readings give a + b·N and all other loads: 83 % at 128 and 61 % at 256 (arithmetic)', () => {
    // a + 128 b = 0.83 · 128/48, a + 256 b = 0.61 · 256/48.
    const model = loadModel([
      { sampleRate: 48_000, bufferFrames: 128, percent: 83 },
      { sampleRate: 48_000, bufferFrames: 256, percent: 61 },
    ] as never)
    expect(model?.perFrameMs).toBeCloseTo(((0.61 * 256) / 48 - (0.83 * 128) / 48) / 128, 9)
    expect(loadAt(model as never, 48_000, 128).percent).toBeCloseTo(83, 9)
    expect(loadAt(model as never, 48_000, 512)).toEqual({ percent: expect.closeTo(50, 9) })
  })
  describe('one buffer size alone, 60 % at 128 frames: a·fs/N + b·fs with a, b ≥ 0 (arithmetic)', () => {
    const one = [{ sampleRate: 48_000, bufferFrames: 128, percent: 60 }] as never
    const model = loadModel(one) as LoadModel
    it.each([
      [48_000, 64, 60, 'at least'],
      [48_000, 256, 60, 'at most'],
      [96_000, 64, 120, 'at least'],
      [48_000, 128, 60, undefined],
      [44_100, 128, 55.125, undefined],
    ])('%d Hz, %d frames: %d %%, %s', (rate, size, percent, limit) => {
      const load = loadAt(model, rate, size)
      expect(load.percent).toBeCloseTo(percent, 9)
      expect(load.limit).toBe(limit)
      // Both ends, everything with the buffers and everything with the frames, lie on the side that is told.
      const ms = (0.6 * 128) / 48
      for (const a of [0, ms]) {
        const real = (100 * (a + ((ms - a) / 128) * size) * rate) / (1000 * size)
        if (limit === 'at least') expect(real).toBeGreaterThanOrEqual(load.percent - 1e-9)
        if (limit === 'at most') expect(real).toBeLessThanOrEqual(load.percent + 1e-9)
      }
    })
    it('what a limit leaves open is not said to hold or to drop out', () => {
      const held = (percent: number, size: number) =>
        cell(timed({ loads: [{ sampleRate: 48_000, bufferFrames: 128, percent }] }), 48_000, size)?.sustainable
      expect([held(60, 64), held(60, 128), held(60, 256)]).toEqual([undefined, true, true])
      expect([held(80, 64), held(80, 128), held(80, 256)]).toEqual([false, false, undefined])
    })
    it('nothing is said of what every frame costs', () => {
      expect(model).toMatchObject({ perBufferMs: null, perFrameMs: null })
      expect(model.assumption).toContain('a smaller buffer loads the machine at least as much')
    })
  })
  it('what was tried wins over the model', () => {
    const trials = (dropouts: number, bufferFrames: number) =>
      [{ sampleRate: 48_000, bufferFrames, minutes: 5, dropouts }] as never
    expect(sustainable(trials(3, 128), { percent: 20 }, 48_000, 128)).toBe(false)
    expect(sustainable(trials(3, 256), { percent: 20 }, 48_000, 128)).toBe(false)
    expect(sustainable(trials(0, 64), { percent: 90 }, 48_000, 128)).toBe(true)
    expect(sustainable(trials(3, 64), { percent: 20 }, 48_000, 128)).toBe(true)
    expect(sustainable([], undefined, 48_000, 128)).toBeUndefined()
  })
  /** From the source to the capsule, 0.3 m at 20 °C: 343.2 m/s. */
  const AIR = 0.8744
  describe('what is recommended, by hand: 0.87 + (2 · N + 88)/fs + 0.5 ms', () => {
    const [first] = example1().strips as object[]
    /** What a performer with that limit should listen by, on a unit with or without direct monitoring. */
    const best = (limit: number, system: object = {}, unit: object = {}, monitor: object = {}) => {
      const gear = (example1().gear as { kind: string }[]).map((box) =>
        box.kind === 'interface' ? { ...box, ...unit } : box,
      )
      const strip = { ...first, performer: { listensTo: 'plucked', limit }, monitor: { route: 'software', ...monitor } }
      return timeSession(timed(system, { gear, strips: [strip] })).recommendations[0]
    }
    const trial = (bufferFrames: number, dropouts: number, sampleRate = 48_000) => ({
      sampleRate,
      bufferFrames,
      minutes: 5,
      dropouts,
    })

    it('under 9 ms: 128 frames; what the next buffer and direct monitoring would be is said', () => {
      // 0.87 + (2 · 128 + 88)/48 + 0.5 = 8.54 fits, 256 does not.
      expect(best(9)).toMatchObject({ route: 'software', bufferFrames: 128, sustained: true })
      expect(best(9)?.reason).toBe(
        '128 frames is the largest buffer under the 9 ms limit for plucked strings. It is not known yet whether the machine sustains it. 256 frames would be 13.87 ms. Direct monitoring would be 1.71 ms, without the host’s effects and mix.',
      )
    })
    it('tried without a dropout it is called sustained; the largest of all has no next one', () => {
      expect(best(9, { trials: [trial(64, 0)] })?.reason).toContain('plucked strings. The machine sustains it. 256')
      expect(best(50)).toMatchObject({ bufferFrames: 1024 })
      expect(best(50)?.reason).not.toContain('frames would be')
      expect(best(9, {}, { direct: 'none' })?.reason).not.toContain('Direct')
    })
    it('who listens direct and feels nothing keeps doing so, with the buffer as it is unless it drops out', () => {
      const direct = { route: 'direct' }
      expect(best(9, {}, {}, direct)).toMatchObject({ route: 'direct', bufferFrames: 128 })
      expect(best(9, {}, {}, direct)?.reason).toBe(
        'Direct monitoring, 1.71 ms, is under the 9 ms limit for plucked strings. The buffer is not heard: it may stay at 128 frames.',
      )
      const found = best(9, { trials: [trial(128, 4), trial(256, 0)] }, {}, direct)
      expect(found).toMatchObject({ route: 'direct', bufferFrames: 256 })
      expect(found?.reason).toContain('use 256 frames at 48 kHz, because 128 frames at 48 kHz drops out')
    })
    it('under 4 ms without direct monitoring: a higher rate, 64 frames at 88.2 kHz in 3.82 ms, with what it costs', () => {
      expect(best(4, {}, { direct: 'none' })).toMatchObject({ route: 'software', sampleRate: 88_200, bufferFrames: 64 })
      expect(best(4, {}, { direct: 'none' })?.milliseconds).toBeCloseTo(AIR + 216 / 88.2 + 0.5, 3)
      expect(best(4, {}, { direct: 'none' })?.reason).toContain(
        'No buffer at 48 kHz is both under 4 ms and sustained. Direct monitoring is not in time either: use 64 frames at 88.2 kHz, 3.82 ms, at 1.8 times the disk.',
      )
      const loads = [{ sampleRate: 48_000, bufferFrames: 128, percent: 20 }]
      expect(best(4, { loads }, { direct: 'none' })?.reason).toMatch(/1\.8 times the disk and at least 37 % load\.$/)
    })
    it('with direct monitoring: direct, with the buffer as it is unless it drops out, the higher rate as the other way', () => {
      const found = best(4)
      expect(found).toMatchObject({ route: 'direct', sampleRate: 48_000, bufferFrames: 128 })
      expect(best(4, { trials: [trial(128, 4), trial(256, 0)] })).toMatchObject({ route: 'direct', bufferFrames: 256 })
      expect(found?.reason).toContain(
        'Use direct monitoring, 1.71 ms; the buffer is then not heard. Or 64 frames at 88.2',
      )
      expect(best(4, {}, {}, { pluginFrames: 64 })?.reason).toContain('The plug-ins are not heard on the direct sound.')
      expect(found?.reason).not.toContain('plug-ins')
    })
    it('where nothing is in time, the least possible', () => {
      expect(best(0.5)).toMatchObject({ route: 'direct', milliseconds: expect.closeTo(AIR + 40 / 48, 3) })
      expect(best(0.5, { sampleRate: 96_000 }, { direct: 'none', sampleRates: [96_000] })).toMatchObject({
        route: 'software',
        bufferFrames: 32,
        milliseconds: expect.closeTo(AIR + 152 / 96 + 0.5, 3),
      })
    })
    it('a buffer that is not sustained is never recommended while another rate would do', () => {
      // Everything drops out at 48 kHz; 44.1 was tried and held.
      const trials = [trial(1024, 4), trial(512, 0, 44_100)]
      const found = best(50, { trials }, { direct: 'none', sampleRates: [44_100, 48_000] })
      expect(found).toMatchObject({ sampleRate: 44_100, sustained: true })
      expect(best(0.5, { trials }, { direct: 'none', sampleRates: [44_100, 48_000] })).toMatchObject({
        sampleRate: 44_100,
        bufferFrames: 32,
      })
    })
    it('where no buffer at any rate is sustained, that is said, with what would help', () => {
      const trials = [trial(1024, 4), trial(1024, 2, 44_100)]
      const found = best(50, { trials }, { direct: 'none', sampleRates: [44_100, 48_000] })
      expect(found).toMatchObject({ sustained: false, bufferFrames: 1024 })
      expect(found?.reason).toContain('sustains no buffer at any rate')
      expect(found?.reason).toContain('Take plug-ins off')
    })
  })
  it('a measured cell shows its measurement, two of them their mean and spread', () => {
    const session = timed({ roundTrips: [trip(48_000, 128, 9), trip(48_000, 128, 9.8), trip(48_000, 256, 14.5)] })
    expect(cell(session, 48_000, 128)).toMatchObject({ source: 'measured', softwareMs: 9.4 })
    expect(cell(session, 48_000, 128)?.spread).toBeCloseTo(0.4, 9)
    expect(cell(session, 48_000, 512)?.source).toBe('fitted')
    expect(codes(session)).toContain('measurements-differ')
  })
  it('overdub offset: measured less reported, in frames', () => {
    const session = timed({
      roundTrips: [trip(48_000, 128, 9)],
      reported: [{ sampleRate: 48_000, bufferFrames: 128, inMs: 3.5, outMs: 3.5 }],
    })
    expect(timeSession(session)).toMatchObject({ overdubOffsetFrames: 96 }) // 2 ms at 48 kHz
    expect(timeSession(session).overdubOffsetMs).toBeCloseTo(2, 9)
  })
})

describe('clock and disk', () => {
  it('48 kHz material at 44.1 kHz: 8.84 % longer, 1.47 semitones flat', () => {
    expect(rateMismatch(48_000, 44_100).longer).toBeCloseTo(8.84, 2)
    expect(rateMismatch(48_000, 44_100).semitones).toBeCloseTo(-1.47, 2)
    const found = timeSession(timed({ devices: [{ name: 'Camera', sampleRate: 44_100 }] })).findings.find(
      (each) => each.code === 'rate-mismatch',
    )
    expect(found?.message).toContain('8.84 % longer and 1.47 semitones flat')
  })
  it('48 kHz, 24 bit, 2 channels, 1 h: 1.0368 GB; 96 kHz, 8 channels: 8.294 GB', () => {
    expect(recordingBytes(48_000, 24, 2, 3600)).toBe(1.0368e9)
    expect(recordingBytes(96_000, 24, 8, 3600) / 1e9).toBeCloseTo(8.294, 3)
    expect(codes(timed({ takeMinutes: 600 }))).toContain('wav-limit')
    expect(codes(timed({ takeMinutes: 60 }))).not.toContain('wav-limit')
    // 200 min of 24 bits at 48 kHz are 1.728 GB a channel: three channels and two busses, of which no track is made.
    const session = valid({
      ...twoMixes(),
      system: { sampleRate: 48_000, bitDepth: 24, bufferFrames: 128, takeMinutes: 200 },
    })
    const said = timeSession(session).findings.find(({ code }) => code === 'wav-limit')
    expect(said?.message).toContain('All 3 channels in one file would be 5.18 GB')
  })
})

describe('the guided trial', () => {
  const sizes = [32, 64, 96, 128, 192, 256, 512, 1024]
  /** A performer who feels everything above `late`, on a machine that crackles below `crackle`. */
  const says =
    (crackle: number, late: number) =>
    (i: number): TrialAnswer =>
      i < crackle ? 'crackles' : i > late ? 'late' : 'fine'
  function run(
    preference: TrialPreference,
    truth: (i: number) => TrialAnswer,
    lieAt?: number,
  ): { found: number | null; tries: number; lied: boolean } {
    const answers: AnsweredTrial[] = []
    let lied = false
    for (let n = 0; n < 12; n++) {
      const state = guidedTrial(sizes, answers, preference)
      if (state.state !== 'try')
        return { found: state.state === 'found' ? sizes.indexOf(state.bufferFrames) : null, tries: n, lied }
      const i = sizes.indexOf(state.bufferFrames)
      const fine = answers.filter((each) => each.answer === 'fine').map((each) => sizes.indexOf(each.bufferFrames))
      // A lie that what was said before contradicts.
      const lie: TrialAnswer | null = fine.some((each) => each < i)
        ? 'crackles'
        : fine.some((each) => each > i)
          ? 'late'
          : null
      if (n === lieAt && lie) lied = true
      answers.push({ bufferFrames: state.bufferFrames, answer: n === lieAt && lie ? lie : truth(i) })
    }
    throw new Error('it never ends')
  }
  it.each(['smallest', 'largest'] as const)(
    '%s: the best of 8 in at most 3 answers, 4 with one contradictory',
    (preference) => {
      let contradicted = 0
      for (let best = 0; best < 8; best++) {
        const truth = preference === 'largest' ? says(0, best) : says(best, 7)
        expect(run(preference, truth)).toMatchObject({ found: best })
        expect(run(preference, truth).tries).toBeLessThanOrEqual(3)
        for (const lieAt of [0, 1, 2]) {
          const { found, tries, lied } = run(preference, truth, lieAt)
          if (lied) contradicted++
          expect(found).toBe(best)
          expect(tries).toBeLessThanOrEqual(4)
        }
      }
      expect(contradicted).toBeGreaterThan(5)
    },
  )
  it('where what does not crackle is late, it says so: listen direct', () => {
    expect(run('largest', (i) => (i < 4 ? 'crackles' : 'late')).found).toBeNull()
  })
})
