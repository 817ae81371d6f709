import type { Db, Dbu } from '../../units'
import { dbu, raise } from '../../units'
import type { EquivalentInputNoise } from '../equivalent-input-noise'
import { einExcess } from '../equivalent-input-noise'
import type { Tolerance } from '../../model'
import { GAIN_TOLERANCE } from '../../model'
import type { KnobTable } from '../knob'
import type { GainRange } from '../traits'
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

/** How exactly a preamp’s gain stands where it is said to: by steps, by measured marks, by eye. */
export function preampTolerance(
  { gainMin, gainMax, gainStep }: GainRange,
  knob: KnobTable | undefined,
): Tolerance | null {
  if (gainMax === gainMin) return null
  return gainStep > 0 ? GAIN_TOLERANCE.steps : knob ? GAIN_TOLERANCE.marks : GAIN_TOLERANCE.knob
}

/** What an input is for, on the run sheet. */
export const INPUT_WORDS = { mic: 'microphone input', line: 'line input', instrument: 'instrument input' } as const
