import { GAIN_TOLERANCE } from '../../model'
import type { Resolved } from '../stage'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'
import { outputNoise } from '../preamp/limits'
import { digitalCeiling } from '../digital-ceiling'

const isDigital = ({ gear }: Resolved<'fader'>) => gear.place !== 'desk'

/** A fader: the level before it clips whatever the fader says. */
export const faderChain: LineTraits<Resolved<'fader'>> = {
  ...plain,
  compile: (stage) => {
    const { id, gear, specs, gain } = stage
    const digital = isDigital(stage)
    return {
      stage: id,
      unit: digital ? 'dBFS' : 'dBu',
      gain,
      inputCeiling: digital ? null : (specs.maxInput ?? null),
      outputCeiling: digital ? digitalCeiling(gear.arithmetic) : (specs.maxOutput ?? null),
      noise: digital ? [] : outputNoise(specs),
    }
  },
  isOfDesk: (stage) => !isDigital(stage),
  gainTolerance: (stage) => (isDigital(stage) ? null : GAIN_TOLERANCE.fader),
  gainIsFader: true,
  inNumbers: isDigital,
  isBox: (stage) => !isDigital(stage),
  outputClass: (stage) => (isDigital(stage) ? null : 'line'),
  inputClass: (stage) => (isDigital(stage) ? null : 'line'),
  phantomAttitude: (stage) =>
    isDigital(stage) ? null : stage.gear.plugs?.out?.balance === 'one-leg' ? 'harmful' : 'harmless',
}
