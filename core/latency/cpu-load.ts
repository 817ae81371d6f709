import { leastSquares } from '../numeric/least-squares'
import type { LoadReading, Trial } from '../model'
import { formatDecimal } from '../units'

/** Time that the machine needs for one buffer: a + b·N milliseconds, out of the N/fs it has. */
export interface LoadModel {
  /** a, what every buffer costs however small, ms; `null` where one buffer size alone was read. */
  perBufferMs: number | null
  /** b, what every frame costs, ms; `null` likewise. */
  perFrameMs: number | null
  readings: number
  /** What had to be assumed; `null` where the readings say it all. */
  assumption: string | null
  /** The only size that was read, and the time of such a buffer. */
  only?: { bufferFrames: number; ms: number }
}

/** A load as it is known: one buffer size tells of smaller ones what they take at least, of larger ones what they take at most. */
export interface Load {
  percent: number
  limit?: 'at least' | 'at most'
}

/** What is known of the load of a cell of rate and buffer. */
export const loadOfCell = (cell: { loadPercent?: number; loadLimit?: Load['limit'] }): Load | undefined =>
  cell.loadPercent === undefined
    ? undefined
    : { percent: cell.loadPercent, ...(cell.loadLimit && { limit: cell.loadLimit }) }

/** A load in words, such as “at least 60 %”. */
export const loadWords = ({ percent, limit }: Load): string =>
  `${limit ? `${limit} ` : ''}${formatDecimal(percent, 0)} %`

/** From here on the machine is not trusted to keep up (common practice, no source), %. */
export const MOST_LOAD = 70

/**
 * The load at a rate and a buffer. With one size N₀ of time T alone a and b are not known apart, but neither is below 0: at other sizes
 * the load lies between T·fs/N₀ (all of it goes with the frames) and T·fs/N (all with the buffers).
 */
export function loadAt({ perBufferMs, perFrameMs, only }: LoadModel, sampleRate: number, bufferFrames: number): Load {
  if (!only)
    return { percent: (((perBufferMs ?? 0) + (perFrameMs ?? 0) * bufferFrames) * sampleRate) / (10 * bufferFrames) }
  const percent = (only.ms * sampleRate) / (10 * only.bufferFrames)
  if (bufferFrames === only.bufferFrames) return { percent }
  return { percent, limit: bufferFrames < only.bufferFrames ? 'at least' : 'at most' }
}

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
      perBufferMs: null,
      perFrameMs: null,
      readings: times.length,
      assumption:
        'One buffer size alone gives limits: a smaller buffer loads the machine at least as much, a larger one at most.',
      only: { bufferFrames: first.frames, ms: mean },
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
 * Whether the machine sustains a cell: what was tried there wins over the load. Dropouts at a buffer speak against it
 * and all smaller ones of that rate, a clean run for it and all larger ones.
 * @returns `undefined` where nothing is known.
 */
export function sustainable(
  trials: readonly Trial[],
  load: Load | undefined,
  sampleRate: number,
  bufferFrames: number,
): boolean | undefined {
  const own = trials.filter((each) => each.sampleRate === sampleRate)
  if (own.some((each) => each.dropouts > 0 && each.bufferFrames >= bufferFrames)) return false
  if (own.some((each) => each.dropouts === 0 && each.bufferFrames <= bufferFrames)) return true
  if (load === undefined) return undefined
  const keepsUp = load.percent < MOST_LOAD
  const isOpen = load.limit === (keepsUp ? 'at least' : 'at most')
  return isOpen ? undefined : keepsUp
}
