import type { System } from '../model'
import type { TimingCell } from './time-session'

/** The buffer to go to against crackles: the smallest larger one that is known to hold, else the next; `null` at the largest. */
export function largerBuffer(
  { sampleRate, bufferFrames }: System,
  buffers: readonly number[],
  matrix: readonly TimingCell[],
): number | null {
  const more = buffers.filter((frames) => frames > bufferFrames).sort((a, b) => a - b)
  const holds = (frames: number) =>
    matrix.some((cell) => cell.sampleRate === sampleRate && cell.bufferFrames === frames && cell.sustainable)
  return more.find(holds) ?? more[0] ?? null
}
