/** A moment of an input, dBFS; `null` for silence. */
export interface GaugeLevel {
  peak: number | null
  average: number | null
}

/** Moments that count as now: three seconds of twenty a second. */
const NOW = 60
/** Below that nothing is playing, dBFS. */
const SILENT = -80

/** The highest level of the last three seconds; `null` while nothing sounds. A peak that is held longer knows nothing of a gain turned down. */
export function recentLevel(columns: readonly GaugeLevel[], reads: 'peak' | 'average'): number | null {
  const levels = columns.slice(-NOW).map((each) => each[reads] ?? -Infinity)
  const highest = Math.max(-Infinity, ...levels)
  return highest > SILENT ? highest : null
}
