import { GAIN_TOLERANCE } from '../../model'
import { blocksCurve } from './curve'
import type { Resolved } from '../stage'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'
import { outputNoise } from '../preamp/limits'
import { digitalCeiling } from '../digital-ceiling'

const isDigital = ({ gear }: Resolved<'processor'>) => gear.domain === 'digital'

/** A processor: its sections' static curve, then its output gain. */
export const processorChain: LineTraits<Resolved<'processor'>> = {
  ...plain,
  compile: (stage) => {
    const { id, gear, specs, gain } = stage
    const digital = isDigital(stage)
    return {
      stage: id,
      unit: digital ? 'dBFS' : 'dBu',
      gain,
      curve: blocksCurve(gear.blocks),
      inputCeiling: digital ? null : (specs.maxInput ?? null),
      outputCeiling: digital ? digitalCeiling(gear.arithmetic) : (specs.maxOutput ?? null),
      noise: digital ? [] : outputNoise(specs),
    }
  },
  outputClass: (stage) => (isDigital(stage) ? null : 'line'),
  inputClass: (stage) => (isDigital(stage) ? null : 'line'),
  phantomAttitude: (stage) =>
    isDigital(stage) ? null : stage.gear.plugs?.out?.balance === 'one-leg' ? 'harmful' : 'harmless',
  powered: (stage) => !isDigital(stage),
  gainTolerance: (stage) => (isDigital(stage) ? null : GAIN_TOLERANCE.fader),
  inNumbers: isDigital,
  isBox: (stage) => !isDigital(stage),
}
