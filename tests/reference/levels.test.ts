import type { Unit } from 'mathjs'
import { evaluate } from 'mathjs'
import { describe, expect, it } from 'vitest'
import {
  SINE_CREST,
  aWeighting,
  airTime,
  celsius,
  db,
  dbSpl,
  dbfs,
  dbu,
  dbuToDbv,
  dbuToVolts,
  dbv,
  dbvToDbu,
  frames,
  framesToMilliseconds,
  hz,
  metres,
  noiseUnderA,
  ohms,
  pascals,
  pascalsToDbSpl,
  peakOf,
  ratioToDb,
  speedOfSound,
  thermalNoise,
  thermalNoiseA,
  volts,
  voltsToDbu,
  WHITE_UNDER_A,
  BOLTZMANN,
  dbSplToPascals,
} from '#core/units'

describe('levels (definitions: ISO 1683, IEC 60268-2, AES17)', () => {
  it('1 Pa is 93.979 dB SPL', () => {
    expect(pascalsToDbSpl(pascals(1))).toBeCloseTo(93.979, 3)
    expect(dbSplToPascals(dbSpl(93.9794))).toBeCloseTo(1, 5)
  })
  it('−10 dBV is 0.3162 V and −7.78 dBu; dBu = dBV + 2.2185', () => {
    expect(dbuToVolts(dbvToDbu(dbv(-10)))).toBeCloseTo(0.3162, 4)
    expect(dbvToDbu(dbv(-10))).toBeCloseTo(-7.78, 2)
    expect(dbuToDbv(dbu(2.2185))).toBeCloseTo(0, 4)
  })
  it('+4 dBu is 1.2277 V, 11.78 dB above −10 dBV', () => {
    expect(dbuToVolts(dbu(4))).toBeCloseTo(1.2277, 4)
    expect(voltsToDbu(volts(1.2277))).toBeCloseTo(4, 3)
    expect(4 - dbvToDbu(dbv(-10))).toBeCloseTo(11.78, 2)
  })
  it('a sine reads the same as peak and as average; crest 12 dB at −20 dBFS peaks at −11.01', () => {
    expect(SINE_CREST).toBeCloseTo(3.0103, 4)
    expect(peakOf(dbfs(-20), SINE_CREST)).toBeCloseTo(-20, 10)
    expect(peakOf(dbfs(-20), db(12))).toBeCloseTo(-11.01, 2)
  })
  it('1 m to 0.25 m is +12.04 dB', () => {
    expect(ratioToDb(1 / 0.25)).toBeCloseTo(12.04, 2)
  })
})

describe('A-weighting (table of IEC 61672-1, tolerance ±0.05 dB)', () => {
  // Nominal frequencies stand for the exact ones of the 10^(n/10) series.
  it.each([
    [13, 20, -50.5],
    [15, 31.5, -39.4],
    [18, 63, -26.2],
    [21, 125, -16.1],
    [24, 250, -8.6],
    [27, 500, -3.2],
    [30, 1000, 0],
    [33, 2000, 1.2],
    [36, 4000, 1.0],
    [39, 8000, -1.1],
    [42, 16000, -6.6],
  ])('10^(%i/10) Hz, nominally %d Hz: %d dB', (n, _nominal, expected) => {
    expect(Math.abs(aWeighting(hz(10 ** (n / 10))) - expected)).toBeLessThanOrEqual(0.0501)
  })
  it('white noise of 20 Hz–20 kHz loses 2.05 dB, pink 2.86 dB', () => {
    expect(WHITE_UNDER_A).toBeCloseTo(-2.05, 2)
    expect(noiseUnderA((f) => 1 / f)).toBeCloseTo(-2.86, 2)
  })
})

describe('thermal noise (U = √(4kTRB), Johnson and Nyquist 1928)', () => {
  it.each([
    [150, -130.92],
    [200, -129.67],
    [600, -124.9],
  ])('%i Ω: %d dBu', (resistance, expected) => {
    expect(thermalNoise(ohms(resistance))).toBeCloseTo(expected, 2)
  })
  it('150 Ω A-weighted: −132.97 dBu(A)', () => {
    expect(thermalNoiseA(ohms(150))).toBeCloseTo(-132.97, 2)
  })
  it('agrees with the same formula in the units of mathjs', () => {
    const volts = evaluate(`sqrt(4 * ${BOLTZMANN} J/K * 293.15 K * 19980 Hz * 200 ohm)`) as Unit
    expect(dbuToVolts(thermalNoise(ohms(200))) / volts.toNumber('V')).toBeCloseTo(1, 12)
  })
})

describe('time', () => {
  // Buffer table at 44.1, 48 and 96 kHz, frames over rate: arithmetic, exact to 0.001 ms.
  it.each([
    [44100, [0.726, 1.451, 2.902, 5.805, 11.61]],
    [48000, [0.667, 1.333, 2.667, 5.333, 10.667]],
    [96000, [0.333, 0.667, 1.333, 2.667, 5.333]],
  ])('buffers of 32 to 512 frames at %i Hz', (rate, expected) => {
    const computed = [32, 64, 128, 256, 512].map((count) => framesToMilliseconds(frames(count), hz(rate)))
    computed.forEach((value, i) => expect(Math.abs(value - (expected[i] as number))).toBeLessThanOrEqual(0.0005))
  })
  it('sound runs at 343.2 m/s at 20 °C, 1 m in 2.91 ms (331.3·√(1 + ϑ/273.15), ideal-gas law)', () => {
    expect(speedOfSound(celsius(20))).toBeCloseTo(343.2, 1)
    expect(airTime(metres(1), celsius(20))).toBeCloseTo(2.91, 2)
  })
})
