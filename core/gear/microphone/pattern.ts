import type { Pattern } from './microphone'
import type { Db } from '../../units'
import { db } from '../../units'

/** The part of a first-order directivity that is the same all around; the rest goes with the cosine of the angle. */
const AROUND: Readonly<Record<Pattern, number>> = {
  'omni': 1,
  'wide-cardioid': 0.75,
  'cardioid': 0.5,
  'supercardioid': (Math.sqrt(3) - 1) / 2,
  'hypercardioid': 0.25,
  'figure-8': 0,
}

/** No microphone's null is deeper than this in a room, dB (common practice, no source). */
const DEEPEST_NULL = 40

/**
 * What a microphone takes of a diffuse room against an omnidirectional one: its random energy efficiency,
 * 10 lg(a² + b²/3) with a + b = 1 (handbook acoustics).
 * Examples: cardioid −4.77 dB, supercardioid −5.72, hypercardioid −6.02, figure-8 −4.77, wide cardioid −2.34.
 */
export function diffuseGain(pattern: Pattern): Db {
  const a = AROUND[pattern]
  return db(10 * Math.log10(a * a + (1 - a) ** 2 / 3))
}

/** What it takes of a source off its axis, 20 lg|a + b cos φ|. Example: cardioid at 90°: −6.02 dB. */
export function offAxisGain(pattern: Pattern, degrees: number): Db {
  const a = AROUND[pattern]
  const share = Math.abs(a + (1 - a) * Math.cos((degrees * Math.PI) / 180))
  return db(Math.max(-DEEPEST_NULL, 20 * Math.log10(share)))
}
