import { z } from '../../model/z'
import { fields, numbers } from '../../model/field'
import { measurements } from '../../model/measurement'
import { id } from '../../model/text'
import { common, maxOutputField, outputField, plugs } from '../common'
import { ofKind } from '../of-kind'
import type { GearTraits } from '../traits'
import { choice, PERFORMANCE, plainTraits, without } from '../traits'

export const electricSourceSpecs = fields({
  level: {
    label: 'Average',
    unit: 'dBu',
    min: -80,
    max: 40,
    help: 'Open circuit, during the loudest rehearsed passage.',
  },
  crest: {
    label: 'Crest factor',
    unit: 'dB',
    min: 0,
    max: 40,
    help: 'Peak over average; a sine has 3.01 dB, a plucked string 12 to 20 dB.',
  },
  surge: {
    label: 'Surge',
    unit: 'dB',
    min: 0,
    max: 40,
    initial: 0,
    help: 'How much louder the take gets than the soundcheck.',
  },
  impedance: { ...outputField, label: 'Impedance' },
  inductance: {
    label: 'Inductance',
    unit: 'H',
    min: 0,
    max: 100,
    optional: true,
    help: 'Of a pickup’s coil; a magnetic guitar pickup has about 2 to 5 H (common practice).',
  },
  volumeLoss: {
    label: 'Own volume down by',
    unit: 'dB',
    min: 0,
    max: 100,
    optional: true,
    help: 'What the instrument’s own passive volume knob takes off; fully up 0.',
  },
  volumePot: {
    label: 'Volume pot',
    unit: 'Ω',
    min: 1000,
    max: 10_000_000,
    optional: true,
    help: 'Resistance of the instrument’s passive volume control, often 250 or 500 kΩ. With it the loss and the treble follow from its position.',
  },
  volumeAt: {
    label: 'Volume position',
    unit: 'times',
    min: 0.001,
    max: 1,
    optional: true,
    help: 'Where the wiper stands, as a part of the pot’s resistance: 1 is fully up.',
  },
  maxOutput: maxOutputField,
  noise: {
    label: 'Own noise',
    unit: 'dBu(A)',
    min: -140,
    max: 0,
    optional: true,
    help: 'At its output. Left out: a passive pickup makes the thermal noise of its impedance, others none.',
  },
})

export const electricOutputs = ['passive-pickup', 'active-pickup', 'line'] as const

/** An instrument with a pickup, a keyboard, a player: something that makes a voltage. */
export const electricSource = z.strictObject({
  id,
  kind: z.literal('electric-source'),
  ...common,
  output: z.enum(electricOutputs),
  plugs,
  specs: numbers(electricSourceSpecs),
  measured: measurements(electricSourceSpecs),
})
export type ElectricSource = z.infer<typeof electricSource>
export const isElectricSource = ofKind('electric-source')

/** A coil and a passive knob are a passive pickup's. */
const PASSIVE_ONLY: ReadonlySet<string> = new Set(['inductance', 'volumeLoss', 'volumePot', 'volumeAt'])
const activeFields = without(electricSourceSpecs, PASSIVE_ONLY)

export const electricSourceTraits: GearTraits<ElectricSource> = {
  ...plainTraits,
  words: { title: 'Electric source', name: 'an electric source' },
  allFields: electricSourceSpecs,
  fields: ({ output }) => (output === 'passive-pickup' ? electricSourceSpecs : activeFields),
  settings: () => [],
  domains: () => ({ takes: null, gives: 'analogue' }),
  sockets: () => ['out'],
  choices: ({ output }) => [
    choice('output', 'Output', output, {
      'passive-pickup': 'passive pickup',
      'active-pickup': 'active pickup',
      'line': 'line output',
    }),
  ],
  performance: PERFORMANCE,
  feedsBus: { between: false, last: true },
  blank: { output: 'line', specs: { level: -10, crest: 12, impedance: 150 } },
}
