import { leastSquares } from '../numeric/least-squares'
import type { LoadReading, Trial } from '../model'

/** Time that the machine needs for one buffer: a + b·N milliseconds, out of the N/fs it has. */
export interface LoadModel {
  /** a, what every buffer costs however small, ms. */
  perBufferMs: number
  /** b, what every frame costs, ms. */
  perFrameMs: number
  readings: number
  /** What had to be assumed; `null` where the readings say it all. */
  assumption: string | null
}

/** From here on the machine is not trusted to keep up (common practice, no source), %. */
export const MOST_LOAD = 70

/** Of one reading's time per buffer, the part taken to be fixed (common practice, no source). */
const ASSUMED_FIXED = 0.5

/** The load at a rate and a buffer, %. */
export const loadAt = ({ perBufferMs, perFrameMs }: LoadModel, sampleRate: number, bufferFrames: number): number =>
  (100 * (perBufferMs + perFrameMs * bufferFrames) * sampleRate) / (1000 * bufferFrames)

/** A model from the readings of the host's load meter. @returns `null` without any. */
export function loadModel(readings: readonly LoadReading[]): LoadModel | null {
  const times = readings.map(({ sampleRate, bufferFrames, percent }) => ({
    frames: bufferFrames,
    ms: (percent / 100) * ((1000 * bufferFrames) / sampleRate),
  }))
  const [first] = times
  if (!first) return null
  if (new Set(times.map((each) => each.frames)).size < 2) {
    const mean = times.reduce((sum, each) => sum + each.ms, 0) / times.length
    return {
      perBufferMs: ASSUMED_FIXED * mean,
      perFrameMs: ((1 - ASSUMED_FIXED) * mean) / first.frames,
      readings: times.length,
      assumption:
        'One buffer size alone cannot tell what every buffer costs from what every frame costs: half of each is assumed. Read the meter at a second size.',
    }
  }
  const line = leastSquares(
    times.map((each) => [1, each.frames]),
    times.map((each) => each.ms),
  )
  const [a = 0, b = 0] = line?.coefficients ?? []
  if (a >= 0 && b >= 0) return { perBufferMs: a, perFrameMs: b, readings: times.length, assumption: null }
  // A cost below zero cannot be: the other one alone carries the readings.
  const only = (of: (frames: number) => number) =>
    times.reduce((sum, each) => sum + of(each.frames) * each.ms, 0) /
    times.reduce((sum, each) => sum + of(each.frames) ** 2, 0)
  return a < 0
    ? {
        perBufferMs: 0,
        perFrameMs: only((frames) => frames),
        readings: times.length,
        assumption: 'The readings would want a negative cost per buffer: none is assumed.',
      }
    : {
        perBufferMs: only(() => 1),
        perFrameMs: 0,
        readings: times.length,
        assumption: 'The readings would want a negative cost per frame: none is assumed.',
      }
}

/**
 * Whether the machine sustains a cell: what was tried there wins over the model. Dropouts at a buffer speak against it
 * and all smaller ones of that rate, a clean run for it and all larger ones.
 * @returns `undefined` where nothing is known.
 */
export function sustainable(
  trials: readonly Trial[],
  load: number | undefined,
  sampleRate: number,
  bufferFrames: number,
): boolean | undefined {
  const own = trials.filter((each) => each.sampleRate === sampleRate)
  if (own.some((each) => each.dropouts > 0 && each.bufferFrames >= bufferFrames)) return false
  if (own.some((each) => each.dropouts === 0 && each.bufferFrames <= bufferFrames)) return true
  return load === undefined ? undefined : load < MOST_LOAD
}
