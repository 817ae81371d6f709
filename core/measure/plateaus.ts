import { amplitudeToDbfs } from './block-levels'
import { fitSine } from './sine-fit'
import { steadyStretches } from './steady'
import type { WavFault } from './wav/format'

/** A stretch in which a tone stands still. */
export interface Plateau {
  /** s from the beginning of the file. */
  at: number
  seconds: number
  /** dBFS. */
  level: number
  /** Standard deviation within the stretch, dB. */
  deviation: number
  clipped: boolean
}

/** A hand holds a knob still for a second at least; a stretch may sway by this much with its own noise. */
const STEADINESS = { within: 0.6, least: 0.8 }

/** The steps of a recorded tone: a knob turned from mark to mark, or a staircase of levels. */
export function measurePlateaus(samples: Float64Array, sampleRate: number): { plateaus: Plateau[] } | WavFault {
  const plateaus = steadyStretches(samples, sampleRate, STEADINESS).flatMap(({ from, to }) => {
    const stretch = samples.subarray(from, to)
    const fit = fitSine(stretch, sampleRate)
    const level = fit && amplitudeToDbfs(fit.amplitude)
    if (!fit || level === null || residualLevel(fit.residual) > level) return []
    return [
      {
        at: from / sampleRate,
        seconds: (to - from) / sampleRate,
        level,
        deviation: fit.deviation,
        clipped: stretch.some((x) => Math.abs(x) >= 0.99999),
      },
    ]
  })
  if (plateaus.length === 0)
    return {
      code: 'no-steps',
      message:
        'No stretch of a second or more has a tone that stands still. Hold each mark for three seconds, and check the channel.',
    }
  return { plateaus }
}

/** Of the RMS in AES17 terms; far below everything for silence. */
const residualLevel = (residual: Float64Array) =>
  10 * Math.log10((2 * residual.reduce((sum, x) => sum + x * x, 0)) / residual.length + 1e-30)
