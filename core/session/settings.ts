import { z } from './z'
import { fields, inForce, number } from './field'
import type { AnalogueInput, Gear, GearKind } from './gear'

export const settingFields = fields({
  distance: { label: 'Distance', unit: 'm', min: 0.01, max: 100, help: 'From the source to the capsule.' },
  gain: { label: 'Gain', unit: 'dB', min: -120, max: 100, help: 'As the knob or the display says.' },
  fader: { label: 'Fader', unit: 'dB', min: -120, max: 40, help: 'As the mark beside it says; 0 at its zero mark.' },
  cable: { label: 'Lead', unit: 'm', min: 0, max: 1000, optional: true, help: 'Length of the lead into this stage.' },
  capacitance: {
    label: 'Lead capacitance',
    unit: 'pF/m',
    min: 1,
    max: 2000,
    optional: true,
    help: 'Of that lead; 100 pF/m where it is left out.',
  },
})

export const taps = ['pre', 'post'] as const

/**
 * The one vocabulary of settings of the file. Which of them a stage has, its gear's kind decides:
 * `settingsOf` says so, and the session check refuses the others with their path.
 */
export const settings = z.strictObject({
  distance: number(settingFields.distance).optional(),
  gain: number(settingFields.gain).optional(),
  fader: number(settingFields.fader).optional(),
  phantom: z.boolean().optional(),
  pad: z.boolean().optional(),
  lowCut: z.boolean().optional(),
  tap: z.enum(taps).optional().describe('Where a desk channel is taken from: before or after its fader.'),
  cable: number(settingFields.cable).optional(),
  capacitance: number(settingFields.capacitance).optional(),
})
export type Settings = z.infer<typeof settings>
export type SettingName = keyof Settings
export type SettingValue = NonNullable<Settings[SettingName]>

const lead = ['cable', 'capacitance'] as const

export const settingsOf: Readonly<Record<GearKind, readonly SettingName[]>> = {
  'sound-source': ['distance'],
  'electric-source': [],
  'playback': [],
  'microphone': ['lowCut'],
  'pad': lead,
  'di-box': lead,
  'booster': lead,
  'preamp': ['gain', 'phantom', 'pad', 'lowCut', ...lead],
  'processor': ['gain', ...lead],
  'desk-channel': ['gain', 'fader', 'phantom', 'pad', 'lowCut', 'tap', ...lead],
  'fader': ['gain', ...lead],
  'link': lead,
  'interface': ['gain', 'phantom', 'pad', ...lead],
  'headphones': [],
}

/** A range of gain that can be set. */
export interface GainRange {
  gainMin: number
  gainMax: number
  gainStep: number
}

export const analogueInput = (gear: Gear, port: string | undefined): AnalogueInput | undefined => {
  if (gear.kind !== 'interface') return undefined
  const input = gear.inputs.find((candidate) => candidate.id === port)
  return input && input.type !== 'digital' ? input : undefined
}

/** The range of a gain setting of a box; `null` where it has no such setting. */
export function gainRange(gear: Gear, port: string | undefined, setting: 'gain' | 'fader'): GainRange | null {
  if (setting === 'fader') {
    if (gear.kind !== 'desk-channel') return null
    const { faderMin, faderMax } = inForce(gear)
    return { gainMin: faderMin, gainMax: faderMax, gainStep: 0 }
  }
  switch (gear.kind) {
    case 'preamp':
    case 'desk-channel':
    case 'processor':
    case 'fader':
      return inForce(gear)
    case 'interface': {
      const input = analogueInput(gear, port)
      return input ? inForce(input) : null
    }
    default:
      return null
  }
}

/** Whether a box has a switch: a pad, a low cut, 48 V. */
export function hasSwitch(gear: Gear, port: string | undefined, setting: 'pad' | 'phantom' | 'lowCut'): boolean {
  const input = gear.kind === 'interface' ? analogueInput(gear, port) : gear
  if (!input) return false
  const specs = 'specs' in input ? inForce(input as { specs: Record<string, unknown> }) : {}
  if (setting === 'phantom') return 'phantom' in input && input.phantom === true
  return setting === 'pad' ? Number(specs.pad ?? 0) > 0 : specs.lowCut !== undefined
}
