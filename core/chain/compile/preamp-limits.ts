import type { Db, Dbu } from '../../units'
import { dbu, raise } from '../../units'
import type { EquivalentInputNoise } from '../../resolved/equivalent-input-noise'
import { einExcess } from '../../resolved/equivalent-input-noise'
import type { NoiseName, NoiseSource } from '../two-port'

interface InputLimits {
  readonly gainMin: Db
  readonly maxInput?: Dbu | undefined
}

/** An input's limit: stated at minimum gain, it falls as the gain rises; a pad before it moves it up again. */
export function inputLimit({ maxInput, gainMin }: InputLimits, gain: Db, pad: number): Dbu | null {
  return maxInput === undefined ? null : dbu(maxInput - (gain - gainMin) + pad)
}

/** The excess of an EIN, raised by the gain behind it. A pad stands before the amplifier, so its noise does not pass it. */
export function inputNoise(name: NoiseName, specs: EquivalentInputNoise, gain: Db): NoiseSource[] {
  const excess = einExcess(specs)
  return excess === null ? [] : [{ name, level: raise(excess, gain) }]
}

/** What a stage makes at its output whatever its gain. */
export const outputNoise = ({ outputNoise: level }: { readonly outputNoise?: Dbu | undefined }): NoiseSource[] =>
  level === undefined ? [] : [{ name: 'output-stage', level }]
