import { db, hz, pascals, volts } from './quantity'

/** Reference sound pressure, 20 µPa. ISO 1683. */
export const REFERENCE_PRESSURE = pascals(20e-6)

/** Reference voltage of the dBu: the voltage that puts 1 mW into 600 Ω, √(0.001 · 600) V. */
export const DBU_REFERENCE = volts(Math.sqrt(0.001 * 600))

/** Boltzmann's constant in J/K, exact since the SI of 2019. */
export const BOLTZMANN = 1.380649e-23

/** Temperature at which thermal noise is stated, 20 °C in kelvin. */
export const NOISE_TEMPERATURE = 293.15

/** The band in which every noise of the product is stated, 20 Hz to 20 kHz. */
export const AUDIO_BAND = { low: hz(20), high: hz(20_000) } as const

/** Crest factor of a sine, 10 lg 2 = 3.01 dB: peak √2, RMS 1. */
export const SINE_CREST = db(10 * Math.log10(2))
