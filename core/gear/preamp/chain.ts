import { db } from '../../units'
import type { Resolved } from '../stage'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'
import { inputLimit, inputNoise, outputNoise, preampTolerance } from './limits'

/** A preamp. Its input's limit is stated at minimum gain and falls as the gain rises; its pad moves it up again. */
export const preampChain: LineTraits<Resolved<'preamp'>> = {
  ...plain,
  compile: ({ id, specs, gain, settings }) => {
    const pad = settings.pad ? specs.pad : 0
    return {
      stage: id,
      unit: 'dBu',
      gain: db(gain - pad),
      inputCeiling: inputLimit(specs, gain, pad),
      outputCeiling: specs.maxOutput ?? null,
      noise: [...inputNoise('preamp', specs, gain), ...outputNoise(specs)],
    }
  },
  outputClass: () => 'line',
  inputClass: () => 'mic',
  phantomAttitude: ({ gear }) => (gear.plugs?.out?.balance === 'one-leg' ? 'harmful' : 'harmless'),
  phantomSupply: (stage) => ({
    stage,
    can: stage.gear.phantom,
    on: stage.settings.phantom ?? false,
    bank: undefined,
    switchId: `${stage.gear.id}/input/${stage.id}`,
  }),
  powered: () => true,
  liftsMicrophones: () => true,
  knob: ({ gear }) => gear.knob,
  gainTolerance: ({ gear, specs }) => preampTolerance(specs, gear.knob),
}
