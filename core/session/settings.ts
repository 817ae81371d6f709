import { z } from './z'
import { fields, number } from './field'
import type { GearKind } from './gear'

export const settingFields = fields({
  distance: { label: 'Distance', unit: 'm', min: 0.01, max: 100, help: 'From the source to the capsule.' },
  gain: { label: 'Gain', unit: 'dB', min: -60, max: 100, help: 'As the knob or the display says.' },
})

/**
 * The one vocabulary of settings of the file. Which of them a stage has, its gear's kind decides:
 * `settingsOf` says so, and the session check refuses the others with their path.
 */
export const settings = z.strictObject({
  distance: number(settingFields.distance).optional(),
  gain: number(settingFields.gain).optional(),
  phantom: z.boolean().optional(),
  pad: z.boolean().optional(),
})
export type Settings = z.infer<typeof settings>
export type SettingName = keyof Settings

export const settingsOf: Readonly<Record<GearKind, readonly SettingName[]>> = {
  'sound-source': ['distance'],
  'microphone': [],
  'interface': ['gain', 'phantom', 'pad'],
}
