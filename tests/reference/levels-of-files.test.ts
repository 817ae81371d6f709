import { describe, expect, it } from 'vitest'
import { KFilter, kWeighting } from '#core/measure/levels/k-weighting'
import type { LevelsPart, LevelsReport } from '#core/measure/levels/measure-levels'
import { channelCount } from '#core/measure/channel-count'
import { LevelsMeter, LevelsPartMeter, joinLevels } from '#core/measure/levels/measure-levels'
import { measureLoopback } from '#core/measure/loopback'
import { Fft } from '#core/numeric/fft'
import { joined } from '#core/numeric/joined'
import {
  faded,
  logSweep,
  maximumLengthSequence,
  pinkNoise,
  pulseTrain,
  sine,
  staircase,
  whiteNoise,
} from '#core/signals/generate'
import { seeded } from '#core/numeric/random'
import type { SampleFormat } from '#core/signals/write-wav'
import { writeWav } from '#core/signals/write-wav'
import { withChannelMask, withChunk } from '../support/wav'

function measure(bytes: Uint8Array, piece = 65_537): LevelsReport {
  const meter = new LevelsMeter()
  for (let at = 0; at < bytes.length; at += piece) meter.push(bytes.subarray(at, at + piece))
  const result = meter.end()
  if (!result.ok) throw new Error(result.fault.message)
  return result.report
}
const levels = (samples: Float64Array, rate = 48_000, format: SampleFormat = 'float') =>
  measure(writeWav([samples], rate, format)).channels[0] as LevelsReport['channels'][0]
const near = (actual: number | null | undefined, expected: number, tolerance: number) =>
  expect(Math.abs((actual ?? Number.NaN) - expected), `${actual} against ${expected}`).toBeLessThanOrEqual(tolerance)
const join = (...parts: Float64Array[]) => joined(parts)

describe('nothing at the ends counts less (IEC 61672-1: 0 dB at 1 kHz)', () => {
  it.each([0.2, 0.05, 1.3])('a tone of %f s at the start, then silence', (seconds) => {
    const samples = join(sine(48_000, seconds, 1000, -10), new Float64Array(48_000 * 4))
    // The mean power is the tone's, thinned out over the whole.
    near(levels(samples).rmsA, -10 + 10 * Math.log10(seconds / (seconds + 4)), 0.1)
  })
  it('the same at the end', () => {
    const samples = join(new Float64Array(48_000 * 4), sine(48_000, 0.2, 1000, -10))
    near(levels(samples).rmsA, -10 + 10 * Math.log10(0.2 / 4.2), 0.1)
  })
})

describe('clipping is a plateau that the signal does not come to gently', () => {
  const quantised = (frequency: number, level: number, bits: number) =>
    sine(48_000, 5, frequency, level).map((x) => Math.round(x * 2 ** (bits - 1)) / 2 ** (bits - 1))
  it.each([40, 60, 80, 100])('a quantised tone of %i Hz at −6 and −20 dBFS has none', (frequency) => {
    for (const level of [-6, -20]) {
      for (const bits of [16, 24] as const) {
        const file = writeWav([quantised(frequency, level, bits)], 48_000, bits, { dither: false })
        expect(measure(file).channels[0]?.clippedRunCount).toBe(0)
      }
    }
  })
  it.each([40, 100, 1000])('%i Hz cut off 1 dB under its peak: every top and bottom', (frequency) => {
    const held = 0.5 * 10 ** (-1 / 20)
    const cut = sine(48_000, 1, frequency, 20 * Math.log10(0.5)).map((x) => Math.max(-held, Math.min(held, x)))
    const found = measure(writeWav([cut], 48_000, 24, { dither: false })).channels[0]
    expect(found?.clippedRunCount).toBeGreaterThanOrEqual(2 * frequency - 1)
    expect(found?.clippedRunCount).toBeLessThanOrEqual(2 * frequency)
  })
})

it('a chunk of odd length whose padding was forgotten, and one with it, are both read over', () => {
  const plain = writeWav([sine(48_000, 1, 997, -20)], 48_000, 16)
  for (const padded of [true, false]) {
    for (const piece of [65_537, 7]) {
      const report = measure(withChunk(plain, 'LIST', new Uint8Array(31).fill(65), padded), piece)
      near(report.channels[0]?.rms, -20, 0.01)
      expect(report.remarks).toEqual([])
    }
  }
})

it('the fast transform agrees with a naive one', () => {
  const random = seeded(3)
  const size = 64
  const [re, im] = [Float64Array.from({ length: size }, random), Float64Array.from({ length: size }, random)]
  const naive = Array.from({ length: size }, (_, k) => {
    let [r, m] = [0, 0]
    for (let n = 0; n < size; n++) {
      const angle = (-2 * Math.PI * k * n) / size
      r += (re[n] as number) * Math.cos(angle) - (im[n] as number) * Math.sin(angle)
      m += (re[n] as number) * Math.sin(angle) + (im[n] as number) * Math.cos(angle)
    }
    return [r, m] as const
  })
  const [before, fft] = [[re.slice(), im.slice()] as const, new Fft(size)]
  fft.forward(re, im)
  naive.forEach(([r, m], k) => {
    expect(Math.abs((re[k] as number) - r)).toBeLessThan(1e-10)
    expect(Math.abs((im[k] as number) - m)).toBeLessThan(1e-10)
  })
  fft.inverse(re, im)
  expect(Math.abs((re[5] as number) - (before[0][5] as number))).toBeLessThan(1e-12)
})

describe('levels (AES17: a sine of peak 0.5 reads −6.02 dBFS on both meters)', () => {
  it.each<SampleFormat>([16, 24, 'float'])('a sine of −6.02 dBFS in a file of %s', (format) => {
    const found = levels(sine(48_000, 2, 997, -6.0206), 48_000, format)
    near(found.peak, -6.02, 0.01)
    near(found.rms, -6.02, 0.01)
    near(found.crest, 3.01, 0.02)
    expect(found.clippedRunCount).toBe(0)
  })
  it('crest: a square 0, a triangle 4.77 dB', () => {
    near(levels(Float64Array.from({ length: 48_000 }, (_, i) => (i % 96 < 48 ? 0.5 : -0.5))).crest, 0, 0.01)
    near(
      levels(Float64Array.from({ length: 48_000 }, (_, i) => 0.9 * (Math.abs((i % 96) - 48) / 24 - 1))).crest,
      4.77,
      0.02,
    )
  })
  it('DC as a level with its polarity', () => {
    const found = levels(sine(48_000, 1, 1000, -20).map((x) => x - 1e-3))
    near(found.dc, -60, 0.01)
    expect(found.dcPolarity).toBe(-1)
  })
  it('where the peak is, and the quietest second', () => {
    const samples = join(whiteNoise(48_000, 2, -40, 1), whiteNoise(48_000, 1.5, -70, 2), whiteNoise(48_000, 1, -40, 3))
    samples[100_000] = 0.7
    const found = levels(samples)
    near(found.peakSeconds, 100_000 / 48_000, 1e-9)
    near(found.floor, -70, 0.3)
  })
  it('clipped runs with their times; a mere touch of full scale is none', () => {
    const clipped = sine(48_000, 1, 100, 6).map((x) => Math.max(-1, Math.min(1, x)))
    const found = measure(writeWav([clipped], 48_000, 24, { dither: false })).channels[0]
    expect(found?.clippedRunCount).toBe(200)
    near(found?.clippedRuns[0]?.seconds, 1 / 1200, 0.0003) // asin ½ is a twelfth of the period
    expect(levels(sine(48_000, 1, 997, 0), 48_000, 24).clippedRunCount).toBe(0)
  })
  it('silence has no levels, not minus infinity', () => {
    expect(levels(new Float64Array(48_000))).toMatchObject({ peak: null, rms: null, rmsA: null, integrated: null })
  })
})

describe('A-weighting within class 1 of IEC 61672-1 at every third octave from 20 Hz to 16 kHz', () => {
  /** Nominal weights and class 1 limits of the standard's tables. */
  const table: [number, number, number, number][] = [
    [13, -50.5, 2, 2],
    [14, -44.7, 2, 2],
    [15, -39.4, 1.5, 1.5],
    [16, -34.6, 1, 1],
    [17, -30.2, 1, 1],
    [18, -26.2, 1, 1],
    [19, -22.5, 1, 1],
    [20, -19.1, 1, 1],
    [21, -16.1, 1, 1],
    [22, -13.4, 1, 1],
    [23, -10.9, 1, 1],
    [24, -8.6, 1, 1],
    [25, -6.6, 1, 1],
    [26, -4.8, 1, 1],
    [27, -3.2, 1, 1],
    [28, -1.9, 1, 1],
    [29, -0.8, 1, 1],
    [30, 0, 0.7, 0.7],
    [31, 0.6, 1, 1],
    [32, 1, 1, 1],
    [33, 1.2, 1, 1],
    [34, 1.3, 1, 1],
    [35, 1.2, 1, 1],
    [36, 1, 1, 1],
    [37, 0.5, 1.5, 1],
    [38, -0.1, 1.5, 1],
    [39, -1.1, 1.5, 1],
    [40, -2.5, 2, 1.5],
    [41, -4.3, 2, 2],
    [42, -6.6, 2.5, 2.5],
  ]
  it.each([44_100, 48_000, 96_000])('at %i Hz', (rate) => {
    for (const [band, weight, under, over] of table) {
      const { rms, rmsA } = levels(sine(rate, 3, 10 ** (band / 10), -20), rate)
      const off = (rmsA ?? 0) - (rms ?? 0) - weight
      expect(off, `band ${band}`).toBeGreaterThan(-under)
      expect(off, `band ${band}`).toBeLessThan(over)
    }
  })
  it('white noise of 20 Hz to 20 kHz loses 2.05 dB', () => {
    const white = levels(whiteNoise(48_000, 20, -20, 7))
    // White to 24 kHz: the band's part of it is 10 lg(19 980/24 000).
    near((white.rmsA ?? 0) - ((white.rms ?? 0) + 10 * Math.log10(19_980 / 24_000)), -2.05, 0.1)
  })
})

describe('K-weighting at 48 kHz (tables 1 and 2 of ITU-R BS.1770-4, from memory)', () => {
  const tabled = [
    { b0: 1.53512485958697, b1: -2.69169618940638, b2: 1.19839281085285, a1: -1.69065929318241, a2: 0.73248077421585 },
    { b0: 1, b1: -2, b2: 1, a1: -1.99004745483398, a2: 0.99007225036621 },
  ]
  it('has the tabled coefficients', () => {
    kWeighting(48_000).forEach((section, i) => {
      for (const [key, value] of Object.entries(tabled[i] ?? {})) near(section[key as 'b0'], value, 1e-6)
    })
  })
  it('lets through the energy that the two sections one by one let through, block after block', () => {
    const noise = whiteNoise(48_000, 0.5, -20, 5)
    const filtered = tabled.reduce((input, { b0, b1, b2, a1, a2 }) => {
      const output = new Float64Array(input.length)
      const at = (values: Float64Array, i: number) => values[i] ?? 0
      for (let i = 0; i < input.length; i++)
        output[i] =
          b0 * at(input, i) +
          b1 * at(input, i - 1) +
          b2 * at(input, i - 2) -
          a1 * at(output, i - 1) -
          a2 * at(output, i - 2)
      return output
    }, noise)
    const filter = new KFilter(48_000)
    const energy = [
      [0, 1],
      [1, 7000],
      [7000, noise.length],
    ].reduce((sum, [from, to]) => sum + filter.energy(noise, from as number, to as number), 0)
    near(energy / filtered.reduce((sum, x) => sum + x * x, 0), 1, 1e-6)
  })
})

describe('loudness (ITU-R BS.1770-4; EBU Tech 3341 and 3342, signals made by rule)', () => {
  const stereo = (samples: Float64Array, rate = 48_000) =>
    measure(writeWav([samples, samples], rate, 'float')).programme
  const steps = (...parts: [number, number][]) =>
    join(...parts.map(([level, seconds]) => sine(48_000, seconds, 1000, level)))
  it('a 997 Hz stereo sine at −23 dBFS: −23.0 LUFS, at every usual rate', () => {
    for (const rate of [44_100, 48_000, 96_000]) near(stereo(sine(rate, 5, 997, -23), rate).integrated, -23, 0.05)
  })
  it.each<[string, [number, number][], number]>([
    ['1', [[-23, 20]], -23],
    ['2', [[-33, 20]], -33],
    [
      '3',
      [
        [-36, 10],
        [-23, 60],
        [-36, 10],
      ],
      -23,
    ],
    [
      '4',
      [
        [-72, 10],
        [-36, 10],
        [-23, 60],
        [-36, 10],
        [-72, 10],
      ],
      -23,
    ],
    [
      '5',
      [
        [-26, 20],
        [-20, 20.1],
        [-26, 20],
      ],
      -23,
    ],
  ])('Tech 3341 signal %s, ±0.1 LU', (_, parts, expected) => {
    near(stereo(steps(...parts)).integrated, expected, 0.1)
  })
  it('Tech 3341 signal 6: five channels of −28, −28, −24, −30, −30 dBFS: −23.0 LUFS', () => {
    const tone = (level: number) => sine(48_000, 20, 1000, level)
    const five = writeWav([tone(-28), tone(-28), tone(-24), tone(-30), tone(-30)], 48_000, 'float')
    // Left, right, centre, side left, side right.
    near(measure(withChannelMask(five, 0x607)).programme.integrated, -23, 0.1)
  })
  it('six tracks without a channel mask are six tracks, with one they are what it says (BS.1770-4, table 3)', () => {
    const six = writeWav(
      Array.from({ length: 6 }, () => sine(48_000, 5, 997, -30)),
      48_000,
      'float',
    )
    // One such tone alone reads −33.0: six times the power, or 1 + 1 + 1 + 0 + 1.41 + 1.41 times.
    near(measure(six).programme.integrated, -33.0 + 10 * Math.log10(6), 0.1)
    near(measure(withChannelMask(six, 0x3f)).programme.integrated, -33.0 + 10 * Math.log10(5.82), 0.1)
  })
  it('Tech 3341 signals 9 to 11: short-term maximum −23.0 LUFS, whatever the phase', () => {
    const nine = join(...Array.from({ length: 5 }, () => steps([-20, 1.34], [-30, 1.66])))
    near(stereo(nine).shortTermMax, -23, 0.1)
    for (const i of [0, 4, 9])
      near(
        stereo(join(new Float64Array(48_000 * 0.15 * i), sine(48_000, 3, 1000, -38 + i), new Float64Array(48_000)))
          .shortTermMax,
        -38 + i,
        0.1,
      )
  })
  it('Tech 3341 signals 12 to 14: momentary maximum', () => {
    near(stereo(join(...Array.from({ length: 25 }, () => steps([-20, 0.18], [-30, 0.22])))).momentaryMax, -23, 0.1)
    for (const i of [0, 10, 19])
      near(
        stereo(join(new Float64Array(48_000 * 0.02 * i), sine(48_000, 0.4, 1000, -38 + i), new Float64Array(48_000)))
          .momentaryMax,
        -38 + i,
        0.35,
      )
  })
  it.each<[string, [number, number][], number]>([
    [
      '1',
      [
        [-20, 20],
        [-30, 20],
      ],
      10,
    ],
    [
      '2',
      [
        [-20, 20],
        [-15, 20],
      ],
      5,
    ],
    [
      '3',
      [
        [-40, 20],
        [-20, 20],
      ],
      20,
    ],
    [
      '4',
      [
        [-50, 20],
        [-35, 20],
        [-20, 20],
        [-35, 20],
        [-50, 20],
      ],
      15,
    ],
  ])('Tech 3342 signal %s: range, ±1 LU', (_, parts, expected) => {
    near(stereo(steps(...parts)).range, expected, 1)
  })
})

describe('true peak (BS.1770-4, Annex 2)', () => {
  it('a sine at fs/4 with 45° at −6 dBTP shows −9 dBFS in its samples, and is found within +0.2/−0.4 dB', () => {
    const found = levels(faded(sine(48_000, 1, 12_000, -6, Math.PI / 4), 48_000, 0.05))
    near(found.peak, -9.03, 0.02)
    near(found.truePeak, -6.1, 0.3)
  })
  it('is never under the sample peak', () => {
    const found = levels(whiteNoise(48_000, 1, -20, 5))
    expect(found.truePeak ?? 0).toBeGreaterThanOrEqual(found.peak ?? 0)
  })
})

describe('a loopback', () => {
  const delayed = (samples: Float64Array, frames: number, gain: number) => {
    // A fractional delay by the spectrum: every frequency turned by its own angle.
    const size = 2 ** Math.ceil(Math.log2(samples.length + 4096))
    const fft = new Fft(size)
    const [re, im] = [new Float64Array(size), new Float64Array(size)]
    re.set(samples)
    fft.forward(re, im)
    for (let k = 0; k < size; k++) {
      const angle = (-2 * Math.PI * (k > size / 2 ? k - size : k) * frames) / size
      const [c, s, r, m] = [Math.cos(angle), Math.sin(angle), re[k] as number, im[k] as number]
      re[k] = gain * (r * c - m * s)
      im[k] = gain * (r * s + m * c)
    }
    fft.inverse(re, im)
    return re.slice(0, samples.length + 4000)
  }
  it.each([
    ['sequence', maximumLengthSequence(14, -6)],
    ['sweep', logSweep(48_000, 0.5, 50, 18_000, -6)],
    ['pulses', pulseTrain(48_000, 0.6, 0.2, -3)],
  ] as const)('%s: the lag below one frame, polarity, level, at 20 dB of signal to noise', (_, signal) => {
    const back = delayed(signal, 371.37, -0.5)
    const rms = Math.sqrt(back.reduce((sum, x) => sum + x * x, 0) / back.length)
    const noise = whiteNoise(48_000, back.length / 48_000, 20 * Math.log10(rms * Math.SQRT2) - 20, 9)
    const found = measureLoopback(
      signal,
      back.map((x, i) => x + (noise[i] ?? 0)),
      48_000,
    )
    near(found?.lagFrames, 371.37, 0.02)
    expect(found?.polarity).toBe(-1)
    near(found?.level, -6.02, 0.3)
    // A train of three pulses agrees with itself by two thirds one pulse later.
    expect(found?.confidence ?? 0).toBeGreaterThan(signal.length === 28_800 ? 0.23 : 0.5)
    expect(found?.confidence ?? 2).toBeLessThanOrEqual(1)
  })
  it('silence has no lag', () =>
    expect(measureLoopback(new Float64Array(100), new Float64Array(100), 48_000)).toBeNull())
})

describe('signals', () => {
  it('a staircase stands at each of its levels', () => {
    const stairs = staircase(48_000, 0.5, 200, [-10, -20])
    near(levels(stairs.slice(2400, 14_400)).rms, -10, 0.05)
    near(levels(stairs.slice(26_400, 38_400)).rms, -20, 0.05)
  })
  it('the same seed gives the same noise, of the level that was asked for', () => {
    expect(whiteNoise(48_000, 0.1, -20, 5)).toEqual(whiteNoise(48_000, 0.1, -20, 5))
    near(levels(pinkNoise(48_000, 5, -30, 4)).rms, -30, 0.01)
  })
})

describe('channels shared over workers', () => {
  it.each([1, 2, 3, 5, 8])('%i workers find what one finds, to the last figure', (of) => {
    const tones = [0, 1, 2, 3, 4].map((i) => sine(48_000, 2, 300 + 210 * i, -20 - i))
    const file = writeWav(tones, 48_000, 24)
    const whole = new LevelsMeter()
    whole.push(file)
    const parts = Array.from({ length: of }, (_, part) => {
      const meter = new LevelsPartMeter({ part, of })
      meter.push(file)
      const result = meter.end()
      if (!result.ok) throw new Error(result.fault.message)
      return result.part
    })
    expect({ ok: true, report: joinLevels(parts as [LevelsPart, ...LevelsPart[]]) }).toEqual(whole.end())
  })
  it('the head of a file tells how many channels it has; what is no file tells nothing', () => {
    expect(channelCount(writeWav([sine(48_000, 0.1, 300, -20), sine(48_000, 0.1, 300, -20)], 48_000, 16))).toBe(2)
    expect(channelCount(new TextEncoder().encode('no recording'))).toBeNull()
  })
})
