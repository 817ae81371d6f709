import type { SettingChange } from '../edits'
import type { LiveSnapshot } from '../measure/live/live-meter'
import type { Reading } from '../model'
import { mean } from '../numeric/statistics'
import type { Session } from '../session'
import { inferReadings } from '../soundcheck/infer'
import type { InferredReading } from '../soundcheck/inferred'
import { expectedAt, limitOf } from '../soundcheck/meter-choices'
import { formatDecimal } from '../units'
import { propagate } from '../uncertainty/uncertainty'
import type { Lane } from './lane'
import { sounds } from './state'

/** What is read on an input, taken together with all others. */
export interface LaneReading {
  strip: string
  reads: 'peak' | 'average'
  value: number
  inferred: InferredReading
}

export interface WatchReadings {
  lanes: LaneReading[]
  /** What is common to several inputs, in words; `null` where nothing is. */
  common: string | null
}

/** A level as it would be taken as a reading; `null` while nothing sounds. */
export function readingOfLane(
  lane: Lane,
  { passage }: LiveSnapshot,
): { reads: 'peak' | 'average'; value: number } | null {
  if (!sounds(lane, passage.peak)) return null
  const reads = lane.window?.reads === 'average' ? 'average' : 'peak'
  const value = reads === 'average' ? passage.loudest : passage.peak
  return value === null ? null : { reads, value: Math.round(100 * value) / 100 }
}

/**
 * What the levels of all inputs say together, as if each were taken as a reading now. What was read of the same meters before and not
 * kept is of another passage, and stays out.
 */
export function inferWatch(
  session: Session,
  lanes: readonly Lane[],
  snapshots: readonly LiveSnapshot[],
): WatchReadings {
  const taken = lanes.flatMap((lane, i) => {
    const snapshot = snapshots[i]
    const read = snapshot && readingOfLane(lane, snapshot)
    return read ? [{ lane, ...read }] : []
  })
  const live = taken.map(({ lane, reads, value }): Reading => {
    const limit = limitOf({ unit: 'dBFS' }, value)
    const expected = expectedAt(session, { strip: lane.strip, stage: lane.stage, reads, unit: 'dBFS' })
    return {
      id: `live-${lane.strip}`,
      strip: lane.strip,
      stage: lane.stage,
      reads,
      value,
      unit: 'dBFS',
      by: 'live',
      ...(expected !== null && { expected }),
      ...(limit && { limit }),
    }
  })
  const isOther = (reading: Reading) =>
    reading.kept || !live.some(({ strip, stage }) => strip === reading.strip && stage === reading.stage)
  const readings = [...(session.soundcheck?.readings ?? []).filter(isOther), ...live]
  const inferred = inferReadings(propagate({ ...session, soundcheck: { ...session.soundcheck, readings } }))
  const own = taken.flatMap(({ lane: { strip }, reads, value }) => {
    const found = inferred.find(({ id }) => id === `live-${strip}`)
    return found ? [{ strip, reads, value, inferred: found }] : []
  })
  return { lanes: own, common: commonWords(own) }
}

/** All gains that the readings offer to turn. */
export const offeredTurns = ({ lanes }: WatchReadings): SettingChange[] =>
  lanes.flatMap(({ inferred }) => inferred.changes)

/** From so many inputs on, and from so much on, something is common to them; they then differ by less than that part of it. */
const COMMON = { inputs: 3, least: 2, apart: 0.5 } as const

/**
 * What all inputs have in common: louder, or quieter, by about as much is not one source after the other, but something that they
 * share (common practice, no source).
 */
function commonWords(lanes: readonly LaneReading[]): string | null {
  const differences = lanes.flatMap(({ inferred: { difference, fault } }) =>
    fault || difference === null ? [] : [difference],
  )
  if (differences.length < COMMON.inputs || differences.length < lanes.length) return null
  const middle = mean(differences)
  const apart = Math.max(...differences) - Math.min(...differences)
  if (Math.abs(middle) < COMMON.least || apart > COMMON.apart * Math.abs(middle)) return null
  return `All ${lanes.length} inputs are about ${formatDecimal(Math.abs(middle), 1)} dB ${middle > 0 ? 'louder' : 'quieter'} than planned. Look first at what they share: the system’s input slider, the unit’s input level, a pad or trim for all.`
}
