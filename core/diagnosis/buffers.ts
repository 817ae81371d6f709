import { timingAxes } from '../latency/axes'
import type { SessionView } from './view'

/** Buffer sizes that the unit’s driver offers or that were measured, rising. */
export const buffersOf = ({ session, unit }: SessionView): readonly number[] =>
  unit ? timingAxes(session, unit).buffers : []
