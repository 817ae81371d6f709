import { powerSum } from '../numeric/power'

/** Levels of own sound and playback at the ear before the volume, dBA and dB. */
export interface Programme {
  average: number
  peak: number
}

/**
 * What a mix control leaves of own sound and playback, dB: both full in the middle, each falling in a straight line to nothing at
 * the other's end (common practice, no source; units differ, the ear decides).
 * Examples: 50 %: 0 and 0 dB; 75 %: own sound −6.02 dB; 100 %: own sound off.
 * @param blend % of the way from own sound alone to playback alone
 */
export function blendGains(blend: number): { own: number; playback: number } {
  const share = Math.min(1, Math.max(0, blend / 100))
  return { own: fall(1 - share), playback: fall(share) }
}

const fall = (share: number) => 20 * Math.log10(Math.min(1, 2 * share))

/** Two programmes that know nothing of each other, heard at once: their powers add. */
export function together(a: Programme, b: Programme): Programme {
  const sum = (levels: number[]) => powerSum(levels.map((level) => ({ level }))) as number
  return { average: sum([a.average, b.average]), peak: sum([a.peak, b.peak]) }
}
