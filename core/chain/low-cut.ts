import { formatDecimal } from '../units'

/**
 * What a low cut takes at a frequency, dB: a Butterworth high-pass of order slope/6, 10 lg(1 + (fc/f)^(2n)).
 * Example: 80 Hz, 12 dB/oct: 12.3 dB at 40 Hz, 24.1 dB at 20 Hz, 3.0 dB at its corner.
 */
export const lowCutLoss = (corner: number, slope: number, frequency: number): number =>
  10 * Math.log10(1 + (corner / frequency) ** (slope / 3))

/** The same in words, about rumble and about what is wanted. */
export function lowCutWords(corner: number, slope: number): string {
  const at = (frequency: number) => `${formatDecimal(lowCutLoss(corner, slope, frequency), 0)} dB at ${frequency} Hz`
  const voice = lowCutLoss(corner, slope, 100)
  return `takes ${at(20)} and ${at(40)}, where rumble and steps are; ${voice < 3 ? 'it leaves a voice alone' : `it already takes ${formatDecimal(voice, 1)} dB of a voice at 100 Hz`}`
}
