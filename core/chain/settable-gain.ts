import type { InputSpecs } from '../session'
import type { Db } from '../units'
import { db } from '../units'

export interface SettableGain {
  gain: Db
  /** The end of the range that stopped it; `null` where the wanted gain lies inside. */
  limit: 'lowest' | 'highest' | null
}

/** Resolution at which a gain without steps, or with steps finer than any control has, is planned. */
const STEPLESS = 0.1
const FINEST = 0.01
const stepOf = ({ gainStep }: InputSpecs) => (gainStep < FINEST ? STEPLESS : gainStep)

/** Gains that close are the same: far below any step, far above what rounding errors leave. */
const SAME = 1e-6

/** The gain that can be set: the wanted one rounded down to the step and held inside the range. */
export function settableGain(specs: InputSpecs, wanted: Db): SettableGain {
  const { gainMin, gainMax } = specs
  if (wanted < gainMin - SAME) return { gain: gainMin, limit: 'lowest' }
  if (wanted > gainMax + SAME) return { gain: gainMax, limit: 'highest' }
  if (wanted >= gainMax - SAME) return { gain: gainMax, limit: null }
  const step = stepOf(specs)
  const rounded = gainMin + Math.floor((wanted - gainMin) / step + SAME) * step
  // Steps such as 0.1 are not exact in binary; nobody sets a billionth of a dB.
  return { gain: db(Math.max(gainMin, Math.round(rounded * 1e9) / 1e9)), limit: null }
}

/** What rounding errors can do to a gain that was worked out twice. */
const WORKED_OUT_TWICE = 1e-9

/**
 * Whether a gain already is what the wanted one rounds to. A wanted gain right at a rounding edge comes out a hair on
 * either side from one time to the next; both sides count, so that planning a planned session changes nothing.
 */
export const isSetFor = (specs: InputSpecs, wanted: Db, gain: Db): boolean =>
  [-WORKED_OUT_TWICE, WORKED_OUT_TWICE].some((hair) => settableGain(specs, db(wanted + hair)).gain === gain)

/** The settable gain nearest to one that a gesture points at. */
export function nearestGain(specs: InputSpecs, wanted: number): Db {
  const held = Math.min(specs.gainMax, Math.max(specs.gainMin, wanted))
  return settableGain(specs, db(Math.min(specs.gainMax, held + stepOf(specs) / 2))).gain
}
