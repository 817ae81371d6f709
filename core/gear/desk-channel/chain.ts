import { db, dbu } from '../../units'
import type { Resolved } from '../stage'
import type { LineTraits } from '../chain-traits'
import { plain } from '../chain-traits'
import type { TwoPort } from '../two-port'
import { INPUT_WORDS, inputLimit, inputNoise, outputNoise, preampTolerance } from '../preamp/limits'

export const deskChannelChain: LineTraits<Resolved<'desk-channel'>> = {
  ...plain,
  compile,
  outputClass: () => 'line',
  inputClass: ({ gear }) => gear.input,
  phantomAttitude: ({ gear }) => (gear.plugs?.out?.balance === 'one-leg' ? 'harmful' : 'harmless'),
  phantomSupply: (stage) => {
    const { gear } = stage
    if (gear.input !== 'mic') return null
    const desk = gear.desk ?? gear.id
    const bank = gear.phantom ? gear.phantomBank : undefined
    return {
      stage,
      can: gear.phantom,
      on: stage.settings.phantom ?? false,
      bank,
      switchId: bank === undefined ? `${desk}/input/${stage.id}` : `${desk}/bank/${bank}`,
    }
  },
  powered: () => true,
  liftsMicrophones: ({ gear }) => gear.input === 'mic',
  isOfDesk: () => true,
  knob: ({ gear }) => gear.knob,
  gainTolerance: ({ gear, specs }) => preampTolerance(specs, gear.knob),
  inputWords: ({ gear }) => INPUT_WORDS[gear.input],
}

/**
 * A desk channel: gain, then the clipping point, then the fader. A level that clips before the fader stays clipped
 * however low the fader stands, so that limit is an input limit here; the sum's or driver's is the output's.
 */
function compile({ id, specs, gain, settings }: Resolved<'desk-channel'>): TwoPort {
  const pad = settings.pad ? specs.pad : 0
  const behind = settings.tap === 'pre' ? 0 : (settings.fader ?? 0)
  const input = inputLimit(specs, gain, pad)
  const beforeFader = specs.maxOutput === undefined ? null : dbu(specs.maxOutput - gain + pad)
  return {
    stage: id,
    unit: 'dBu',
    gain: db(gain - pad + behind),
    inputCeiling: input === null ? beforeFader : beforeFader === null ? input : dbu(Math.min(input, beforeFader)),
    outputCeiling: specs.maxOutput ?? null,
    noise: [...inputNoise('preamp', specs, db(gain + behind)), ...outputNoise(specs)],
  }
}
