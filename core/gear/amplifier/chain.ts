import { GAIN_TOLERANCE } from '../../model'
import type { Dbu, Ohms } from '../../units'
import { db, dbu, volts, voltsToDbu } from '../../units'
import type { Resolved } from '../stage'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'
import { outputNoise } from '../preamp/limits'

/**
 * The level of a sine of a power into a load, U = √(P·R).
 * Example: 200 W into 8 Ω: 40 V, +34.26 dBu.
 */
export const powerLevel = (power: number, load: Ohms): Dbu => voltsToDbu(volts(Math.sqrt(power * load)))

/** A power amplifier: it clips where its power into the stated load ends. Its sensitivity is that level less its gain. */
export const amplifierChain: LineTraits<Resolved<'amplifier'>> = {
  ...plain,
  compile: ({ id, specs, gain }) => ({
    stage: id,
    unit: 'dBu',
    gain: db(specs.gain + gain),
    // The knob stands at the input: what comes before it clips whatever the knob says.
    inputCeiling: specs.maxInput ?? null,
    outputCeiling: powerLevel(specs.maxPower, specs.load),
    noise: outputNoise(specs),
  }),
  inputClass: () => 'line',
  powered: () => true,
  gainTolerance: ({ specs }) => (specs.gainMax > specs.gainMin ? GAIN_TOLERANCE.fader : null),
}

/** The input level at which an amplifier gives its whole power, its knob where it is, dBu. Example: 200 W at 8 Ω, 32 dB: +2.26. */
export const amplifierSensitivity = ({ specs, gain }: Pick<Resolved<'amplifier'>, 'specs' | 'gain'>): Dbu =>
  dbu(powerLevel(specs.maxPower, specs.load) - specs.gain - gain)
