import type { LiveSnapshot } from '../measure/live/live-meter'
import type { Lane } from './lane'

/** How an input stands: nothing yet, nothing at all, under, in or over its window, at its top, or so far off that something is wrong. */
export type LaneState = 'waiting' | 'silent' | 'low' | 'in-window' | 'hot' | 'clipped' | 'faulty'

/** So long nothing is said of silence, s. */
export const LISTENS_FIRST = 3

/** Noise peaks stay under its A-weighted level and this, dB (common practice, no source). */
const PEAKS_OF_NOISE = 20
/** Where no floor is known, nothing under that is a sound, dBFS. */
const NO_SOUND = -80

/** Full scale, as a meter shows it. */
const AT_ITS_TOP = -0.1

/** What the lane’s target reads, of a passage: `null` while nothing sounds. */
export function readOf(lane: Pick<Lane, 'window' | 'surge' | 'floor'>, { passage }: LiveSnapshot): number | null {
  if (!sounds(lane, passage.peak)) return null
  switch (lane.window?.reads ?? 'peak') {
    case 'average':
      return passage.loudest
    case 'peak':
      return passage.peak
    case 'surge-peak':
      return (passage.peak as number) + lane.surge
  }
}

export const sounds = ({ floor }: Pick<Lane, 'floor'>, peak: number | null): peak is number =>
  peak !== null && peak > (floor === null ? NO_SOUND : floor + PEAKS_OF_NOISE)

/** Whether a passage stood at its top: runs of samples at the extreme, or full scale. */
export const isClipped = ({ passage }: LiveSnapshot): boolean =>
  passage.clippedRuns > 0 || (passage.peak ?? -Infinity) >= AT_ITS_TOP

/** @param isFault that what was read is no level but a fault, by all readings together */
export function stateOf(lane: Lane, snapshot: LiveSnapshot, isFault: boolean): LaneState {
  const { passage } = snapshot
  const read = readOf(lane, snapshot)
  if (read === null) return passage.seconds < LISTENS_FIRST ? 'waiting' : 'silent'
  // What is wrong is cleared before any gain is turned, also where it clips.
  if (isFault) return 'faulty'
  if (isClipped(snapshot)) return 'clipped'
  if (!lane.window) return 'in-window'
  return read > lane.window.high ? 'hot' : read < lane.window.low ? 'low' : 'in-window'
}
