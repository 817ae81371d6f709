import { meanSquareToDbfs } from '../block-levels'
import type { Hum } from '../hum'
import { findHum } from '../hum'
import type { PowerSpectrum } from '../levels/spectrum'
import { findHumUnder } from './hum-under'
import { floorOf } from './pause'

/** A line so far under the floor is one of the floor’s own, dB: two seconds scatter. */
const BURIED = 12
/** Where no floor is known, hum fainter than that and the above is none that matters, dBFS. */
const FAINT = -75
/** A single steady line so little under the whole is music, dB (common practice, no source). */
const PLAYED = 15
/** Shorter recordings have too few stretches to compare, s. */
const LONG_ENOUGH = 4

/**
 * Hum in one channel that matters, with a pause in it or without.
 * @param pause a fine spectrum of its quietest two seconds; `null` where it never rests
 */
export function humIn(samples: Float64Array, sampleRate: number, pause: PowerSpectrum | null): Hum | null {
  const hum = pause ? humInPause(samples, sampleRate, pause) : humUnderMusic(samples, sampleRate)
  return hum && hum.level > (floorOf(pause) ?? FAINT) - BURIED ? hum : null
}

/**
 * A pause tells the lines best, but a string that rings on in it has lines too: what is the mains stays the same all along. A recording too
 * short to show that is believed.
 */
function humInPause(samples: Float64Array, sampleRate: number, pause: PowerSpectrum): Hum | null {
  const inPause = findHum(pause)
  if (samples.length < LONG_ENOUGH * sampleRate) return inPause
  const allAlong = findHumUnder(samples, sampleRate)
  return inPause && inPause.mains === allAlong?.mains ? inPause : allAlong
}

/** A line alone that is nearly as loud as all of it is played, where there is no pause that would tell. */
function humUnderMusic(samples: Float64Array, sampleRate: number): Hum | null {
  const hum = findHumUnder(samples, sampleRate)
  const whole = meanSquareToDbfs(samples.reduce((sum, x) => sum + x * x, 0) / samples.length)
  return hum && hum.lines.length === 1 && whole !== null && hum.level > whole - PLAYED ? null : hum
}
