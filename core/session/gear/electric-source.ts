import { z } from '../z'
import { fields, measurements, numbers } from '../field'
import { id } from '../text'
import { common, maxOutputField, outputField, plugs } from './common'

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
