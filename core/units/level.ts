import { DBU_REFERENCE, REFERENCE_PRESSURE, SINE_CREST } from './constants'
import type { Db, DbSpl, Dbu, Dbv, Level, Pascals, Volts } from './quantity'
import { db, dbSpl, dbu, dbv, pascals, volts } from './quantity'

/** 20 lg of a ratio of field quantities (voltages, pressures) in dB. */
export const ratioToDb = (ratio: number): Db => db(20 * Math.log10(ratio))

/** dBu = 20 lg(U / √0.6 V). +4 dBu = 1.2277 V. */
export const voltsToDbu = (voltage: Volts): Dbu => dbu(20 * Math.log10(voltage / DBU_REFERENCE))
export const dbuToVolts = (level: Dbu): Volts => volts(DBU_REFERENCE * 10 ** (level / 20))

/** 20 lg(1 V / √0.6 V) = 2.2185 dB: what to add to a dBV figure to have it in dBu. */
const DBV_IN_DBU = 20 * Math.log10(1 / DBU_REFERENCE)

/** −10 dBV = −7.78 dBu. */
export const dbvToDbu = (level: Dbv): Dbu => dbu(level + DBV_IN_DBU)
export const dbuToDbv = (level: Dbu): Dbv => dbv(level - DBV_IN_DBU)

/** ISO 1683: 1 Pa = 93.979 dB SPL. */
export const pascalsToDbSpl = (pressure: Pascals): DbSpl => dbSpl(20 * Math.log10(pressure / REFERENCE_PRESSURE))
export const dbSplToPascals = (level: DbSpl): Pascals => pascals(REFERENCE_PRESSURE * 10 ** (level / 20))

/** A level moved by a gain (positive) or a loss (negative); it keeps its reference. */
export const raise = <L extends Level>(level: L, gain: Db): L => (level + gain) as unknown as L

/** Upper level minus lower level, a gain without reference. Both must have the same reference. */
export const difference = <L extends Level>(upper: L, lower: NoInfer<L>): Db => db(upper - lower)

/**
 * Peak level from the average (RMS) level and the crest factor.
 *
 * A peak level is the level of the sine that has that peak, so a sine reads the same on both meters:
 * peak = average + crest − 3.01 dB. Convention of AES17 and IEC 61606.
 * Example: average −20 dBFS, crest 12 dB: peak −11.01 dBFS.
 */
export const peakOf = <L extends Level>(average: L, crest: Db): L => raise(average, db(crest - SINE_CREST))
