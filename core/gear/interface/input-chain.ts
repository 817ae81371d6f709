import type { ResolvedInput } from './stage'
import { db, dbfs } from '../../units'
import { fullScaleAt } from './input-gain'
import { inputSpecs } from './interface'
import type { LineTraits } from '../chain-traits'
import { preampTolerance, INPUT_WORDS } from '../preamp/limits'
import { plain } from '../chain-traits'
import type { NoiseSource } from '../two-port'

/**
 * An interface input, from dBu to dBFS. The preamp's noise moves with the gain, the converter's stays:
 * below some gain the converter sets the floor, above it the preamp.
 */
export const interfaceInputChain: LineTraits<ResolvedInput> = {
  ...plain,
  compile: (stage) => ({
    stage: stage.id,
    unit: 'dBFS',
    gain: db(-fullScaleAt(stage.specs, stage.gain, stage.pad ? stage.specs.pad : 0)),
    inputCeiling: null,
    outputCeiling: dbfs(0),
    noise: [...preampNoise(stage), { name: 'converter', level: dbfs(-stage.specs.dynamicRange) }],
  }),
  inputClass: ({ input }) => input.type,
  phantomSupply: (stage) => {
    const { gear, input } = stage
    if (input.type !== 'mic') return null
    const bank = input.phantom ? input.phantomBank : undefined
    return {
      stage,
      can: input.phantom,
      on: stage.phantom,
      bank,
      switchId: bank === undefined ? `${gear.id}/input/${input.id}` : `${gear.id}/bank/${bank}`,
    }
  },
  powered: () => true,
  converts: () => true,
  inputImpedance: ({ specs }) => specs.impedance,
  inPlug: ({ input }) => input.plug,
  port: ({ input }) => ({ side: 'inputs', id: input.id }),
  figures: ({ input }) => ({ owner: input, table: inputSpecs }),
  knob: ({ input }) => input.knob,
  gainTolerance: ({ specs, input }) => preampTolerance(specs, input.knob),
  inputWords: ({ input }) => INPUT_WORDS[input.type],
}

/**
 * The preamp stands behind the pad: its noise meets full scale without the pad, while the signal has lost the pad's
 * loss. So a pad in the way costs signal-to-noise, dB for dB, where the preamp sets the floor.
 */
function preampNoise({ excess, specs, gain }: ResolvedInput): NoiseSource[] {
  return excess === null ? [] : [{ name: 'preamp', level: dbfs(excess - fullScaleAt(specs, gain)) }]
}
