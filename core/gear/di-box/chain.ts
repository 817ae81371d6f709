import type { Db, Ohms } from '../../units'
import { db, ohms } from '../../units'
import { addedThermal } from '../thermal'
import type { Resolved } from '../stage'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'

/** A DI box of turns ratio n: −20 lg n. Example: 12 : 1 = −21.58 dB. */
export const turnsGain = (ratio: number): Db => db(-20 * Math.log10(ratio))

/** A DI box that needs no 48 V is a transformer. */
const isPassiveDi = ({ gear }: Resolved<'di-box'>): boolean => gear.phantom !== 'needed'

/** One without a stated output impedance is a transformer and shows its source's through its turns, Zs/n². */
function outputImpedance({ specs }: Resolved<'di-box'>, source: Ohms | undefined): Ohms | undefined {
  if (specs.outputImpedance !== undefined) return specs.outputImpedance
  return source === undefined ? undefined : ohms(source / specs.ratio ** 2)
}

export const diBoxChain: LineTraits<Resolved<'di-box'>> = {
  ...plain,
  compile: (stage, around) => {
    const gain = turnsGain(stage.specs.ratio)
    return {
      stage: stage.id,
      unit: 'dBu',
      gain,
      inputCeiling: stage.specs.maxInput ?? null,
      outputCeiling: null,
      noise: isPassiveDi(stage)
        ? addedThermal(outputImpedance(stage, around.source), around, stage.specs.inputImpedance, gain)
        : [],
    }
  },
  outputClass: () => 'mic',
  phantomAttitude: ({ gear }) => gear.phantom,
  floats: isPassiveDi,
  outputImpedance,
  thermalResistance: (stage, source) => (isPassiveDi(stage) ? outputImpedance(stage, source) : undefined),
}
