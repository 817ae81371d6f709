import type { Dbu } from '../../units'
import { db, dbfs, dbu } from '../../units'
import type { ResolvedInput } from '../resolve'
import type { NoiseSource, TwoPort } from '../two-port'

/**
 * The input level that reads 0 dBFS as the input is set: `fullScale` − (gain − `gainMin`), + pad where it is in.
 * Example: 0 dBFS at +15 dBu, gain 35 of 0…60 dB: −20 dBu.
 */
export function fullScaleAt({ specs, gain, pad }: Pick<ResolvedInput, 'specs' | 'gain' | 'pad'>): Dbu {
  return dbu(specs.fullScale - (gain - specs.gainMin) + (pad ? specs.pad : 0))
}

/**
 * An interface input, from dBu to dBFS. The preamp's noise moves with the gain, the converter's stays:
 * below some gain the converter sets the floor, above it the preamp.
 */
export function compileInterfaceInput(stage: ResolvedInput): TwoPort {
  return {
    stage: stage.id,
    unit: 'dBFS',
    gain: db(-fullScaleAt(stage)),
    inputCeiling: null,
    outputCeiling: dbfs(0),
    noise: [...preampNoise(stage), { name: 'converter', level: dbfs(-stage.specs.dynamicRange) }],
  }
}

/**
 * The preamp stands behind the pad: its noise meets full scale without the pad, while the signal has lost the pad's
 * loss. So a pad in the way costs signal-to-noise, dB for dB, where the preamp sets the floor.
 */
function preampNoise({ excess, specs, gain }: ResolvedInput): NoiseSource[] {
  return excess === null ? [] : [{ name: 'preamp', level: dbfs(excess - fullScaleAt({ specs, gain, pad: false })) }]
}
