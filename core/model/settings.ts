import { described, z } from './z'
import { fields, number } from './field'

export const settingFields = fields({
  distance: {
    label: 'Distance',
    unit: 'm',
    min: 0.01,
    max: 100,
    help: 'From the source to the capsule; from a loudspeaker to the listener.',
  },
  gain: { label: 'Gain', unit: 'dB', min: -120, max: 100, help: 'As the knob or the display says.' },
  fader: { label: 'Fader', unit: 'dB', min: -120, max: 40, help: 'As the mark beside it says; 0 at its zero mark.' },
  angle: {
    label: 'Off axis',
    unit: '°',
    min: 0,
    max: 180,
    optional: true,
    help: 'Angle between the microphone’s front and the source; 0 where it is left out. A side-address microphone is spoken at from the side that its maker marks (common practice).',
  },
  toMicrophone: {
    label: 'To the microphones',
    unit: 'm',
    min: 0.1,
    max: 200,
    optional: true,
    help: 'From this loudspeaker to the nearest open microphone; the distance of the room where it is left out.',
  },
  cable: { label: 'Cable', unit: 'm', min: 0, max: 1000, optional: true, help: 'Length of the cable into this stage.' },
  capacitance: {
    label: 'Cable capacitance',
    unit: 'pF/m',
    min: 1,
    max: 2000,
    optional: true,
    help: 'Of that cable; 100 pF/m where it is left out.',
  },
})

export const taps = ['pre', 'post'] as const

/**
 * The one vocabulary of settings of the file. Which of them a stage has, the traits of its gear's kind decide, and the
 * session check refuses the others with their path.
 */
export const settings = z.strictObject({
  distance: z.optional(number(settingFields.distance)),
  gain: z.optional(number(settingFields.gain)),
  fader: z.optional(number(settingFields.fader)),
  phantom: z.optional(z.boolean()),
  pad: z.optional(z.boolean()),
  lowCut: z.optional(z.boolean()),
  tap: described('Where a desk channel is taken from: before or after its fader.', z.optional(z.enum(taps))),
  angle: z.optional(number(settingFields.angle)),
  toMicrophone: z.optional(number(settingFields.toMicrophone)),
  cable: z.optional(number(settingFields.cable)),
  capacitance: z.optional(number(settingFields.capacitance)),
})
export type Settings = z.infer<typeof settings>
export type SettingName = keyof Settings
export type SettingValue = NonNullable<Settings[SettingName]>

/** Settings that are gains. */
export type GainSetting = 'gain' | 'fader'
/** Settings that are switches which a box may lack. */
export type SwitchName = 'phantom' | 'pad' | 'lowCut'
