/**
 * A number that knows its unit at compile time.
 *
 * A level (dBu, dBFS, dB SPL) has a reference; a gain, a loss or a headroom is a difference in dB and has none.
 * Passing one as the other does not compile. The brand costs nothing at run time and is put on by the
 * constructors below and by the session parser only.
 */
declare const unit: unique symbol
export type Quantity<U extends string> = number & { readonly [unit]: U }

/** A difference of two levels: gain, loss, headroom, crest factor, signal-to-noise ratio. */
export type Db = Quantity<'dB'>
/** Voltage level re √0.6 V RMS. */
export type Dbu = Quantity<'dBu'>
/** Voltage level re 1 V RMS. */
export type Dbv = Quantity<'dBV'>
/** Digital level, AES17: a sine whose peak just touches full scale is 0 dBFS. */
export type Dbfs = Quantity<'dBFS'>
/** Sound pressure level re 20 µPa RMS, ISO 1683. */
export type DbSpl = Quantity<'dB SPL'>
export type Seconds = Quantity<'s'>
export type Milliseconds = Quantity<'ms'>
export type Frames = Quantity<'frames'>
export type Hz = Quantity<'Hz'>
export type Volts = Quantity<'V'>
export type Pascals = Quantity<'Pa'>
export type Ohms = Quantity<'Ω'>
export type Metres = Quantity<'m'>
export type MetresPerSecond = Quantity<'m/s'>
export type Celsius = Quantity<'°C'>
export type MillivoltsPerPascal = Quantity<'mV/Pa'>

/** What a signal can be measured in along a strip. */
export type Level = Dbu | Dbfs | DbSpl

export const db = (value: number): Db => value as Db
export const dbu = (value: number): Dbu => value as Dbu
export const dbv = (value: number): Dbv => value as Dbv
export const dbfs = (value: number): Dbfs => value as Dbfs
export const dbSpl = (value: number): DbSpl => value as DbSpl
export const milliseconds = (value: number): Milliseconds => value as Milliseconds
export const frames = (value: number): Frames => value as Frames
export const hz = (value: number): Hz => value as Hz
export const volts = (value: number): Volts => value as Volts
export const pascals = (value: number): Pascals => value as Pascals
export const ohms = (value: number): Ohms => value as Ohms
export const metres = (value: number): Metres => value as Metres
export const metresPerSecond = (value: number): MetresPerSecond => value as MetresPerSecond
export const celsius = (value: number): Celsius => value as Celsius
export const millivoltsPerPascal = (value: number): MillivoltsPerPascal => value as MillivoltsPerPascal
