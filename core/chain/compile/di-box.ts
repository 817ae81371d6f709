import type { Db } from '../../units'
import { db } from '../../units'
import { addedThermal, isPassiveDi } from '../passive'
import type { Resolved } from '../../resolved/resolve'
import type { LineTraits } from '../traits'
import { plain } from '../traits'

/** A DI box of turns ratio n: −20 lg n. Example: 12 : 1 = −21.58 dB. */
export const turnsGain = (ratio: number): Db => db(-20 * Math.log10(ratio))

export const diBoxChain: LineTraits<Resolved<'di-box'>> = {
  ...plain,
  compile: (stage, { before }) => {
    const gain = turnsGain(stage.specs.ratio)
    return {
      stage: stage.id,
      unit: 'dBu',
      gain,
      inputCeiling: stage.specs.maxInput ?? null,
      outputCeiling: null,
      noise: isPassiveDi(stage) ? addedThermal(stage, before, gain) : [],
    }
  },
  outputClass: () => 'mic',
  phantomAttitude: ({ gear }) => gear.phantom,
  floats: isPassiveDi,
}
