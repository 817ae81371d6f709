import { formatChance } from '../evaluation/how-sure-words'
import type { LiveSnapshot } from '../measure/live/live-meter'
import { formatDecimal } from '../units'
import type { WatchReadings } from './inference'
import type { Lane } from './lane'
import type { LaneState } from './state'
import { isClipped, sounds } from './state'

/** A statement of the verdict: what is so, and what stands behind it. */
export interface WatchStatement {
  headline: string
  detail: string
}

/** What stands over all inputs. */
export interface WatchVerdict {
  turns: WatchStatement
  headroom: WatchStatement
  listening: WatchStatement
}

/** A peak that came within so many seconds says that the loudest passage is still growing. */
const GROWING = 10

export function watchVerdict(
  lanes: readonly Lane[],
  snapshots: readonly LiveSnapshot[],
  states: readonly LaneState[],
  readings: WatchReadings | null,
): WatchVerdict {
  return {
    turns: turnsOf(states),
    headroom: headroomOf(lanes, snapshots, readings),
    listening: listeningOf(lanes, snapshots),
  }
}

function turnsOf(states: readonly LaneState[]): WatchStatement {
  const count = (...wanted: LaneState[]) => states.filter((each) => wanted.includes(each)).length
  const off = count('low', 'hot', 'clipped')
  const detail = [
    [count('in-window'), 'in the window'],
    [count('faulty'), 'faulty'],
    [count('silent'), 'silent'],
    [count('waiting'), 'not heard yet'],
  ]
    .filter(([number]) => number !== 0)
    .map(([number, words]) => `${number} ${words}`)
    .join(', ')
  const all = states.length > 0 && count('in-window') === states.length
  return {
    headline: all
      ? 'All inputs in their window'
      : `${off} of ${states.length} inputs ${off === 1 ? 'needs' : 'need'} a turn`,
    detail: detail || 'all of them outside their window',
  }
}

function headroomOf(
  lanes: readonly Lane[],
  snapshots: readonly LiveSnapshot[],
  readings: WatchReadings | null,
): WatchStatement {
  const heard = lanes.flatMap((lane, i) => {
    const snapshot = snapshots[i]
    const peak = snapshot?.passage.peak ?? null
    return snapshot && sounds(lane, peak) ? [{ lane, left: -peak, clipped: isClipped(snapshot) }] : []
  })
  const least = heard.reduce<(typeof heard)[number] | null>((a, b) => (a === null || b.left < a.left ? b : a), null)
  if (!least) return { headline: 'No headroom read yet', detail: 'nothing has sounded' }
  const inferred = readings?.lanes.find(({ strip }) => strip === least.lane.strip)?.inferred
  // A fault tells nothing of the take.
  const chance = inferred?.fault ? null : (inferred?.chance ?? null)
  return {
    headline: `Least headroom ${formatDecimal(Math.max(0, least.left), 1)} dB: ${least.lane.name}`,
    detail: least.clipped
      ? 'it clipped in this passage'
      : chance === null
        ? 'under full scale, so far'
        : `so far; ${formatChance(chance)} risk of clipping in the take`,
  }
}

function listeningOf(lanes: readonly Lane[], snapshots: readonly LiveSnapshot[]): WatchStatement {
  const seconds = Math.max(0, ...snapshots.map(({ passage }) => passage.seconds))
  const growing = lanes.filter((lane, i) => {
    const passage = snapshots[i]?.passage
    return passage && sounds(lane, passage.peak) && passage.peakAgo < Math.min(GROWING, passage.seconds)
  })
  const sounding = lanes.filter((lane, i) => sounds(lane, snapshots[i]?.passage.peak ?? null))
  const since = Math.min(...sounding.map((lane) => snapshots[lanes.indexOf(lane)]?.passage.peakAgo ?? Infinity))
  return {
    headline: `Listening for ${minutes(seconds)}`,
    detail:
      sounding.length === 0
        ? 'nothing has sounded yet'
        : growing.length > 0
          ? 'the loudest passage is still growing'
          : `no new peak for ${minutes(since)}`,
  }
}

const minutes = (seconds: number): string =>
  seconds < 60 ? `${Math.floor(seconds)} s` : `${Math.floor(seconds / 60)} min ${Math.floor(seconds % 60)} s`
