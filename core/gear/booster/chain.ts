import type { Resolved } from '../stage'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'
import { inputNoise } from '../preamp/limits'

/** An inline preamp: a fixed gain. Its noise is the excess of its EIN, raised by the gain. It takes its 48 V for itself. */
export const inlinePreampChain: LineTraits<Resolved<'booster'>> = {
  ...plain,
  compile: ({ id, specs }) => ({
    stage: id,
    unit: 'dBu',
    gain: specs.gain,
    inputCeiling: null,
    outputCeiling: specs.maxOutput ?? null,
    noise: inputNoise('booster', specs, specs.gain),
  }),
  outputClass: () => 'mic',
  inputClass: () => 'mic',
  phantomAttitude: () => 'needed',
}
