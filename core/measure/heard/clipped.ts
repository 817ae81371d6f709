import { amplitudeToDbfs } from '../block-levels'
import { ClippedRuns } from '../levels/clipped-runs'
import { flatTops } from './flat-tops'

/** Runs at the extreme, or flat tops where a noise was added behind, and where that lies, dBFS. */
export interface Clipped {
  count: number
  level: number
}

/** One flat top may be a coincidence, and so may two. */
const LEAST_TOPS = 3
/** What stays so low clips nowhere. */
const QUIET_PEAK = 0.01

/** Where a recording was clipped; `null` where it was not. Below full scale that was before the converter. */
export function clippedIn(samples: Float64Array, peak: number): Clipped | null {
  const level = amplitudeToDbfs(peak)
  if (level === null || peak < QUIET_PEAK) return null
  const count = runsIn(samples, peak)
  if (count > 0) return { count, level }
  const tops = flatTops(samples, peak)
  return tops >= LEAST_TOPS ? { count: tops, level } : null
}

function runsIn(samples: Float64Array, peak: number): number {
  const runs = new ClippedRuns({ bits: 24, encoding: 'integer' })
  let last = 0
  samples.forEach((x, i) => {
    if (x >= runs.above.threshold || runs.above.running) runs.above.next(x, last, i)
    if (-x >= runs.below.threshold || runs.below.running) runs.below.next(-x, -last, i)
    last = x
  })
  runs.end()
  return runs.found(peak).count
}
