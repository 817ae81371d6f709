import { described, z } from '../model/z'
import { fields } from '../model/field'
import { assumed, tolerance } from '../model/doubt'
import { id, name, shortText } from '../model/text'

/** What every box has besides its specifications. */
export const common = {
  name,
  origin: described(
    'Where the data sheet’s values are from: sheet and page, or that they are invented.',
    z.optional(shortText),
  ),
  assumed,
  tolerance,
  shelf: described('Id of the item on the gear shelf that this is a copy of.', z.optional(id)),
}

export const connectors = ['xlr', 'jack', 'combo', 'phono', 'usb', 'optical'] as const
export type Connector = (typeof connectors)[number]

/**
 * How a line is driven or taken. `balanced`: both legs carry signal. `impedance-balanced`: one leg carries it, both have
 * the same impedance. `floating`: a winding or coil between the legs, which loses nothing with one of them grounded.
 * `one-leg`: one leg and earth, unbalanced.
 */
export const balances = ['balanced', 'impedance-balanced', 'floating', 'one-leg'] as const

export const plug = z.strictObject({ connector: z.optional(z.enum(connectors)), balance: z.optional(z.enum(balances)) })
export type Plug = z.infer<typeof plug>

export const plugs = described(
  'Connector and balance of its input and its output.',
  z.optional(z.strictObject({ in: z.optional(plug), out: z.optional(plug) })),
)

export const weighting = described(
  'Weighting of the data sheet’s EIN; a measured EIN is A-weighted.',
  z._default(z.enum(['A', 'Z']), 'A'),
)

export const phantomAttitudes = ['needed', 'harmless', 'harmful'] as const
export type PhantomAttitude = (typeof phantomAttitudes)[number]

/** Fixed: clips at 0 dBFS. Float: does not clip before a converter or a fixed-point file. */
export const arithmetics = ['fixed', 'float'] as const

export const gainFields = fields({
  gainMin: { label: 'Minimum gain', unit: 'dB', min: -100, max: 100, initial: 0, help: 'Fully down.' },
  gainMax: { label: 'Maximum gain', unit: 'dB', min: -100, max: 100, initial: 0, help: 'Fully up.' },
  gainStep: {
    label: 'Gain step',
    unit: 'dB',
    min: 0,
    max: 20,
    initial: 0,
    help: 'Of a stepped or digital control; 0 for one without steps.',
  },
})
export const inputField = {
  label: 'Input impedance',
  unit: 'Ω',
  min: 10,
  max: 100_000_000,
  optional: true,
  help: 'The load that the stage before sees.',
} as const
export const outputField = {
  label: 'Output impedance',
  unit: 'Ω',
  min: 0,
  max: 10_000_000,
  optional: true,
  help: 'What the next stage is driven from.',
} as const
export const einField = {
  label: 'EIN',
  unit: 'dBu',
  min: -160,
  max: -40,
  help: 'Equivalent input noise, with the resistor that it was measured with.',
} as const
export const einSourceField = {
  label: 'EIN resistor',
  unit: 'Ω',
  min: 0,
  max: 100_000,
  optional: true,
  help: 'Resistor in the input during the measurement: 150 Ω where it is left out, 0 for a shorted input.',
} as const
export const outputNoiseField = {
  label: 'Output noise',
  unit: 'dBu(A)',
  min: -140,
  max: 0,
  optional: true,
  help: 'Of the stage behind the gain, at its output, whatever the gain.',
} as const
export const maxInputField = {
  label: 'Maximum input level',
  unit: 'dBu',
  min: -60,
  max: 60,
  optional: true,
  help: 'Input level at which it clips, at minimum gain.',
} as const
export const maxOutputField = {
  label: 'Maximum output level',
  unit: 'dBu',
  min: -60,
  max: 60,
  optional: true,
  help: 'Output level at which it clips.',
} as const
export const lowCutField = {
  label: 'Low cut at',
  unit: 'Hz',
  min: 10,
  max: 1000,
  optional: true,
  help: 'Corner of the switchable low cut; none where it has none.',
} as const
export const lowCutSlopeField = {
  label: 'Low cut slope',
  unit: 'dB/oct',
  min: 6,
  max: 24,
  initial: 12,
  help: 'How steeply it falls below its corner.',
} as const
export const padField = {
  label: 'Pad',
  unit: 'dB',
  min: 0,
  max: 60,
  initial: 0,
  help: 'Loss of the switchable pad; 0 where there is none.',
} as const
