import type { Celsius, Frames, Hz, Metres, MetresPerSecond, Milliseconds } from './quantity'
import { celsius, metresPerSecond, milliseconds } from './quantity'

/** How long a number of frames lasts. Example: 128 frames at 48 kHz = 2.667 ms. */
export const framesToMilliseconds = (count: Frames, sampleRate: Hz): Milliseconds =>
  milliseconds((1000 * count) / sampleRate)

/** Speed of sound in dry air, c = 331.3 · √(1 + ϑ/273.15). Example: 20 °C: 343.2 m/s. */
export const speedOfSound = (temperature: Celsius): MetresPerSecond =>
  metresPerSecond(331.3 * Math.sqrt(1 + temperature / 273.15))

/** Temperature assumed where the session gives none. */
export const DEFAULT_TEMPERATURE = celsius(20)

/** Time sound takes through air. Example: 1 m at 20 °C = 2.91 ms. */
export const airTime = (distance: Metres, temperature: Celsius): Milliseconds =>
  milliseconds((1000 * distance) / speedOfSound(temperature))
