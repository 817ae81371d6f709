import type { GainRange } from '../gear'
import type { Db } from '../units'
import { db, SAME_DB } from '../units'

export interface SettableGain {
  gain: Db
  /** The end of the range that stopped it; `null` where the wanted gain lies inside. */
  limit: 'lowest' | 'highest' | null
}

/** Resolution at which a gain without steps, or with steps finer than any control has, is planned. */
const STEPLESS = 0.1
const FINEST = 0.01
const stepOf = ({ gainStep }: GainRange) => (gainStep < FINEST ? STEPLESS : gainStep)

/** The gain that can be set: the wanted one rounded down to the step and held inside the range. */
export function settableGain(specs: GainRange, wanted: Db): SettableGain {
  const { gainMin, gainMax } = specs
  if (wanted < gainMin - SAME_DB) return { gain: db(gainMin), limit: 'lowest' }
  if (wanted > gainMax + SAME_DB) return { gain: db(gainMax), limit: 'highest' }
  if (wanted >= gainMax - SAME_DB) return { gain: db(gainMax), limit: null }
  const step = stepOf(specs)
  const rounded = gainMin + Math.floor((wanted - gainMin) / step + SAME_DB) * step
  // Steps such as 0.1 are not exact in binary; nobody sets a billionth of a dB.
  return { gain: db(Math.max(gainMin, Math.round(rounded * 1e9) / 1e9)), limit: null }
}

/** The settable gain nearest to one that a gesture points at. */
export function nearestGain(specs: GainRange, wanted: number): Db {
  const held = Math.min(specs.gainMax, Math.max(specs.gainMin, wanted))
  return settableGain(specs, db(Math.min(specs.gainMax, held + stepOf(specs) / 2))).gain
}

/** All gains that can be set, counted from the lowest: the steps, and the end of the range where they do not meet it. */
export function gainGrid(range: GainRange): {
  last: number
  at: (step: number) => Db
  /** The highest step that is not over a gain. */
  below: (gain: number) => number
} {
  const { gainMin, gainMax } = range
  const step = stepOf(range)
  const last = Math.ceil((gainMax - gainMin) / step - SAME_DB)
  return {
    last,
    at: (each) => (each >= last ? db(gainMax) : settableGain(range, db(gainMin + each * step)).gain),
    below: (gain) => (gain >= gainMax - SAME_DB ? last : Math.max(0, Math.floor((gain - gainMin) / step + SAME_DB))),
  }
}

/** How far from what is aimed at a window still goes, dB, down and up. */
export interface Tolerance {
  under: number
  over: number
}

/**
 * The gain that can be set for an aim: rounded down to the step, but one step up where down lands under the window and up
 * lands inside it.
 */
export function gainAtTarget(range: GainRange, wanted: number, { under, over }: Tolerance): SettableGain {
  const down = settableGain(range, db(wanted))
  if (down.limit !== null || wanted - down.gain <= under + SAME_DB) return down
  const up = db(Math.min(range.gainMax, down.gain + stepOf(range)))
  return up - wanted <= over + SAME_DB ? { gain: up, limit: null } : down
}
