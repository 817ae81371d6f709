import type { Domains } from '../model/domain'
import type { FieldTable } from '../model/field'
import type { GainSetting, SettingName, SwitchName } from '../model/settings'

/** A range of gain that can be set. */
export interface GainRange {
  gainMin: number
  gainMax: number
  gainStep: number
}

/** A property of a box that is chosen from a few, not measured. */
export interface Choice {
  key: string
  label: string
  value: string
  options: readonly { value: string; text: string }[]
}

/**
 * All that the file, the forms and the tables have to know of a kind of gear. `G` is its box.
 * A new kind is a folder: one such object, and one for the chain (`LineTraits`).
 */
export interface GearTraits<G> {
  /**
   * As a heading, and in a sentence; `box` where the box is called otherwise than its place in a strip, `also` what else it is looked
   * for by.
   */
  readonly words: { readonly title: string; readonly name: string; readonly box?: string; readonly also?: string }
  /** Every number that `specs` of a box of the kind can hold. */
  readonly allFields: FieldTable
  /** Those that a box has as it stands: a digital one has no impedances. */
  fields(gear: G): FieldTable
  settings(gear: G, port?: string): readonly SettingName[]
  domains(gear: G, port?: string): Domains
  /** The sides at which it has a socket of its own; an interface has one at every port. */
  sockets(gear: G): readonly ('in' | 'out')[]
  choices(gear: G): readonly Choice[]
  /** The box with one of its choices made. */
  choose(gear: G, key: string, value: string): G
  /** The range of a gain that can be set; `null` where it has none. */
  gainRange(gear: G, port: string | undefined, setting: GainSetting): GainRange | null
  hasSwitch(gear: G, port: string | undefined, setting: SwitchName): boolean
  /** Where its gain rests before anyone touches it: fully down, or at its zero mark. */
  readonly gainRests: 'down' | 'zero'
  /** Whether it can stand in a strip. */
  readonly inStrip: boolean
  /** Where it stands until somebody says otherwise. */
  usualPlace(gear: G): { readonly distance?: number }
  /** Figures that nobody prints, since they are how somebody plays. */
  readonly performance: ReadonlySet<string>
  /** Whether a signal is strong enough for a bus behind it, between two boxes or as the last of a strip. */
  readonly feedsBus: { readonly between: boolean; readonly last: boolean }
  /** The usual figures of the kind (common practice, no source), to be overwritten with one's own. */
  readonly blank: object
}

/** What most kinds have in common: a box in an analogue line without a gain, a switch or a choice. */
export const plainTraits = {
  settings: () => ['cable', 'capacitance'] as const,
  domains: () => ({ takes: 'analogue', gives: 'analogue' }) as const,
  sockets: () => ['in', 'out'] as const,
  choices: () => [],
  choose: <G>(gear: G, key: string, value: string): G => ({
    ...gear,
    [key]: value === 'true' ? true : value === 'false' ? false : value === '' ? undefined : value,
  }),
  gainRange: () => null,
  hasSwitch: () => false,
  gainRests: 'down',
  inStrip: true,
  usualPlace: () => ({}),
  performance: new Set<string>(),
  feedsBus: { between: true, last: true },
} as const

/** A choice from a table of values and their words. */
export const choice = (key: string, label: string, value: string, words: Readonly<Record<string, string>>): Choice => ({
  key,
  label,
  value,
  options: Object.entries(words).map(([each, text]) => ({ value: each, text })),
})

export const attitudeChoice = (attitude: string): Choice =>
  choice('phantom', 'Phantom power', attitude, {
    needed: '48 V required',
    harmless: '48 V tolerated',
    harmful: '48 V harmful',
  })
export const supplyChoice = (can: boolean): Choice =>
  choice('phantom', 'Phantom power', String(can), { true: 'can give 48 V', false: 'gives no 48 V' })
export const arithmeticChoice = (arithmetic: string): Choice =>
  choice('arithmetic', 'Arithmetic', arithmetic, { float: 'floating point', fixed: 'fixed point' })

/** A table of fields without some of them. */
export const without = (table: FieldTable, keys: ReadonlySet<string>): FieldTable =>
  Object.fromEntries(Object.entries(table).filter(([key]) => !keys.has(key)))

/** What only a box with volts at its sockets has. */
export const ANALOGUE_ONLY: ReadonlySet<string> = new Set([
  'maxInput',
  'maxOutput',
  'outputNoise',
  'inputImpedance',
  'outputImpedance',
])

/** How somebody plays, with which instrument. */
export const PERFORMANCE: ReadonlySet<string> = new Set([
  'level',
  'distance',
  'crest',
  'surge',
  'volumeLoss',
  'volumeAt',
])

/** Behind it a signal is too weak for a bus. */
export const BEFORE_LINE = { between: false, last: false } as const
