import { AUDIO_BAND } from './constants'
import type { Db, Hz } from './quantity'
import { db, hz } from './quantity'

/** Pole frequencies of the A-curve in Hz, IEC 61672-1:2013, E.4. */
const F1 = 20.598997
const F2 = 107.65265
const F3 = 737.86223
const F4 = 12194.217

function response(frequency: number): number {
  const f = frequency * frequency
  return (F4 ** 2 * f * f) / ((f + F1 ** 2) * Math.sqrt((f + F2 ** 2) * (f + F3 ** 2)) * (f + F4 ** 2))
}

/**
 * A-weighting at a frequency, 0 dB at 1 kHz. IEC 61672-1.
 * Example: 100 Hz (nominal 125 Hz is 10^2.1 Hz = 125.9 Hz): −16.1 dB at 10^2.1 Hz.
 */
export const aWeighting = (frequency: Hz): Db => db(20 * Math.log10(response(frequency) / response(1000)))

/**
 * What noise with a given power density loses between 20 Hz and 20 kHz when it is A-weighted.
 *
 * The integral runs over ln f with Simpson's rule (2000 panels: stable to 1e-6 dB).
 * @param density relative power per hertz; a constant for white noise, 1/f for pink.
 */
export function noiseUnderA(density: (frequency: Hz) => number): Db {
  const panels = 2000
  const start = Math.log(AUDIO_BAND.low)
  const width = (Math.log(AUDIO_BAND.high) - start) / panels
  let weighted = 0
  let flat = 0
  for (let i = 0; i <= panels; i++) {
    const frequency = Math.exp(start + i * width)
    const simpson = i === 0 || i === panels ? 1 : i % 2 === 1 ? 4 : 2
    const power = simpson * density(hz(frequency)) * frequency
    flat += power
    weighted += power * 10 ** (aWeighting(hz(frequency)) / 10)
  }
  return db(10 * Math.log10(weighted / flat))
}

/** White noise of 20 Hz–20 kHz under A-weighting: −2.05 dB. Turns an unweighted (Z) electronic noise into A. */
export const WHITE_UNDER_A = noiseUnderA(() => 1)
