import type { Db, Dbu } from '../../units'
import { db, dbu } from '../../units'

/** An input's level for 0 dBFS, stated at minimum gain with its pad out. */
interface InputLevel {
  readonly fullScale: number
  readonly gainMin: number
}

/**
 * The input level that reads 0 dBFS as an input is set: `fullScale` − (gain − `gainMin`), + the loss of a pad that is in.
 * Example: 0 dBFS at +15 dBu, gain 35 of 0…60 dB: −20 dBu.
 */
export const fullScaleAt = ({ fullScale, gainMin }: InputLevel, gain: number, pad = 0): Dbu =>
  dbu(fullScale - (gain - gainMin) + pad)

/** The reverse: `fullScale` of an input that reads 0 dBFS at a level, as it is set. */
export const statedFullScale = (reads: number, gainMin: number, gain: number, pad = 0): Dbu =>
  dbu(reads + (gain - gainMin) - pad)

/**
 * The gain at which the preamp's noise equals the converter's: FS_min − DR − excess, counted from `gainMin`.
 * Below it the converter sets the electronics' floor and gain buys signal-to-noise; above it, gain only costs headroom.
 * Example: 0 dBFS at +15 dBu, DR 110 dB, excess −128.27 dBu: 33.3 dB.
 */
export const noiseCrossover = ({ fullScale, gainMin }: InputLevel, dynamicRange: number, excess: number): Db =>
  db(fullScale - dynamicRange - excess + gainMin)
