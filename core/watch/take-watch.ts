import type { LiveSnapshot } from '../measure/live/live-meter'
import type { Take } from '../session'
import { formatDecimal } from '../units'
import type { Lane } from './lane'
import { sounds } from './state'

/** Clips of a strip that are told with their times; the others are counted. */
const TIMES_TOLD = 5
/** A note holds no more, characters. */
const LONGEST_NOTE = 2000

interface OfLane {
  peak: number | null
  clips: number
  /** s since the take began, at which something clipped. */
  times: number[]
  /** Clipped runs that the passage under way had when it was looked at last. */
  seen: number
}

/** A take as it is watched on all inputs: what clipped on which strip and when, and what headroom each had at least. */
export class TakeWatch {
  private readonly of = new Map<string, OfLane>()

  /** @param seconds since the take began */
  next(seconds: number, lanes: readonly Pick<Lane, 'strip' | 'floor'>[], snapshots: readonly LiveSnapshot[]): void {
    lanes.forEach((lane, i) => {
      const passage = snapshots[i]?.passage
      if (!passage) return
      const own = this.of.get(lane.strip) ?? { peak: null, clips: 0, times: [], seen: 0 }
      this.of.set(lane.strip, own)
      if (sounds(lane, passage.peak)) own.peak = Math.max(own.peak ?? -Infinity, passage.peak)
      // Peaks that were restarted meanwhile count from nothing again.
      const more = passage.clippedRuns - (passage.clippedRuns < own.seen ? 0 : own.seen)
      own.seen = passage.clippedRuns
      if (more <= 0) return
      own.clips += more
      const last = own.times.at(-1)
      if (last === undefined || Math.floor(last) !== Math.floor(seconds)) own.times.push(seconds)
    })
  }

  /** What the log keeps of it, least headroom first. */
  summary(names: (strip: string) => string): Pick<Take, 'peak' | 'clippedRuns' | 'note'> {
    const heard = [...this.of].flatMap(([strip, { peak, ...own }]) => (peak === null ? [] : [{ strip, peak, ...own }]))
    if (heard.length === 0) return {}
    const sorted = heard.sort((a, b) => b.peak - a.peak)
    const words = sorted.map(({ strip, peak, clips, times }) =>
      clips > 0
        ? `${names(strip)} clipped ${clips} ${clips === 1 ? 'time' : 'times'}, at ${timesInWords(times)}`
        : `${names(strip)} ${formatDecimal(Math.max(0, -peak), 1)} dB headroom`,
    )
    return {
      peak: Math.round(100 * (sorted[0] as { peak: number }).peak) / 100,
      clippedRuns: sorted.reduce((sum, { clips }) => sum + clips, 0),
      note: `${words.join('; ')}.`.slice(0, LONGEST_NOTE),
    }
  }
}

/** "0:42, 1:13 and 3 more". */
function timesInWords(times: readonly number[]): string {
  const told = times.slice(0, TIMES_TOLD).map(clock)
  const more = times.length - told.length
  return more > 0 ? `${told.join(', ')} and ${more} more` : told.join(', ')
}

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`
