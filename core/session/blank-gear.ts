import type { Gear, GearKind } from './gear'
import { readGear } from './read-gear'

/** The usual figures of each kind (common practice, no source), to be overwritten with one's own. */
const USUAL: Readonly<Record<GearKind, object>> = {
  'sound-source': { specs: { level: 70, crest: 14 } },
  'electric-source': { output: 'line', specs: { level: -10, crest: 12, impedance: 150 } },
  'playback': { specs: { level: -20, crest: 12 } },
  'microphone': {
    principle: 'condenser',
    phantom: 'needed',
    specs: { sensitivity: 12, impedance: 150, selfNoise: 14, maxSpl: 134 },
  },
  'pad': { specs: { loss: 20, inputImpedance: 10_000, outputImpedance: 150 } },
  'di-box': { specs: { ratio: 12, inputImpedance: 140_000, outputImpedance: 150 } },
  'booster': { specs: { gain: 24, ein: -128, inputImpedance: 20_000, outputImpedance: 150 } },
  'preamp': {
    phantom: true,
    specs: { gainMin: 10, gainMax: 60, maxOutput: 24, ein: -127, inputImpedance: 2000, outputImpedance: 150 },
  },
  'processor': {
    specs: { gainMin: -12, gainMax: 12, maxInput: 22, maxOutput: 22, inputImpedance: 20_000, outputImpedance: 150 },
  },
  'desk-channel': {
    phantom: true,
    specs: {
      gainMin: 0,
      gainMax: 60,
      maxInput: 20,
      maxOutput: 22,
      ein: -126,
      inputImpedance: 2000,
      outputImpedance: 150,
    },
  },
  'fader': { specs: {} },
  'link': { medium: 'wireless', specs: { latency: 3, dynamicRange: 105 } },
  'headphones': { specs: { sensitivity: 98, impedance: 32 } },
  'interface': {
    inputs: [
      {
        id: 'in1',
        type: 'mic',
        phantom: true,
        specs: { gainMin: 0, gainMax: 60, gainStep: 1, fullScale: 12, ein: -127, dynamicRange: 110, impedance: 2000 },
      },
    ],
    outputs: [{ id: 'phones', type: 'headphone', specs: { fullScale: 10, impedance: 10 } }],
  },
}

/** A box of a kind to start from. */
export function blankGear(kind: GearKind, id: string, name: string): Gear {
  const reading = readGear({ id, kind, name, ...USUAL[kind] })
  if (!reading.ok) throw new Error(`The usual ${kind} is faulty: ${reading.faults[0]?.message}`)
  return reading.gear
}
