import type { InputSpecs } from '../session'
import type { Db } from '../units'
import { db } from '../units'

export interface SettableGain {
  gain: Db
  /** The end of the range that stopped it; `null` where the wanted gain lies inside. */
  limit: 'lowest' | 'highest' | null
}

/** Resolution at which a gain without steps is planned. */
const STEPLESS = 0.1

/** Gains that close are the same: far below any step, far above what rounding errors leave. */
const SAME = 1e-6

/** The gain that can be set: the wanted one rounded down to the step and held inside the range. */
export function settableGain({ gainMin, gainMax, gainStep }: InputSpecs, wanted: Db): SettableGain {
  if (wanted < gainMin - SAME) return { gain: gainMin, limit: 'lowest' }
  if (wanted > gainMax + SAME) return { gain: gainMax, limit: 'highest' }
  if (wanted >= gainMax - SAME) return { gain: gainMax, limit: null }
  const step = gainStep || STEPLESS
  const rounded = gainMin + Math.floor((wanted - gainMin) / step + SAME) * step
  // Steps such as 0.1 are not exact in binary; nobody sets a billionth of a dB.
  return { gain: db(Math.round(rounded * 1e9) / 1e9), limit: null }
}

/** The settable gain nearest to one that a gesture points at. */
export function nearestGain(specs: InputSpecs, wanted: number): Db {
  const step = specs.gainStep || STEPLESS
  const held = Math.min(specs.gainMax, Math.max(specs.gainMin, wanted))
  return settableGain(specs, db(Math.min(specs.gainMax, held + step / 2))).gain
}
