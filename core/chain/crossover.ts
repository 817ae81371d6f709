import type { Db } from '../units'
import { db } from '../units'
import type { ResolvedInput } from './resolve'

/**
 * The gain at which the preamp's noise equals the converter's: FS_min − DR − excess, counted from `gainMin`.
 * Below it the converter sets the electronics' floor and gain buys signal-to-noise; above it, gain only costs headroom.
 * Example: 0 dBFS at +15 dBu, DR 110 dB, excess −128.27 dBu: 33.3 dB.
 */
export const crossoverGain = ({ specs, excess }: ResolvedInput): Db | null =>
  excess === null ? null : db(specs.fullScale - specs.dynamicRange - excess + specs.gainMin)
