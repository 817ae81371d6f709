import { db } from '../../units'
import { addedThermal } from '../thermal'
import type { Resolved } from '../stage'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'

/** Loss from which on a pad turns a line into something that a microphone input takes (common practice, no source). */
const LINE_TO_MIC = 15

/** A pad: a fixed loss, and the thermal noise of its output resistance. */
export const padChain: LineTraits<Resolved<'pad'>> = {
  ...plain,
  compile: (stage, around) => {
    const gain = db(-stage.specs.loss)
    return {
      stage: stage.id,
      unit: 'dBu',
      gain,
      inputCeiling: null,
      outputCeiling: null,
      noise: addedThermal(stage.specs.outputImpedance, around, stage.specs.inputImpedance, gain),
    }
  },
  outputClass: ({ specs }, before) => (before === 'line' && specs.loss >= LINE_TO_MIC ? 'mic' : before),
  passesPhantom: true,
  thermalResistance: ({ specs }) => specs.outputImpedance,
}
