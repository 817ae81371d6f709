import type { GainRange } from '../gear'
import type { Reading } from '../model'

/** The parts of a soundcheck in the order in which they are done (common practice). */
export const groups = [
  'system',
  'down',
  'plugs',
  'types',
  'phantom',
  'strips',
  'pairs',
  'busses',
  'timing',
  'headphones',
  'loudspeakers',
  'recall',
] as const
export type Group = (typeof groups)[number]

export const groupTitles: Record<Group, string> = {
  system: 'System',
  down: 'Everything down',
  plugs: 'Plugs and cables',
  types: 'Input types and pads',
  phantom: 'Phantom power',
  strips: 'Loudest passage',
  pairs: 'Pairs alike',
  busses: 'Busses',
  timing: 'Rate, buffer, monitoring',
  headphones: 'Headphones',
  loudspeakers: 'Loudspeakers last',
  recall: 'Recall',
}

/** What a meter must show on the loudest passage. */
export interface ToRead {
  stage: string
  reads: Reading['reads']
  low: number
  high: number
  unit: Reading['unit']
  /** Which meter, in words. */
  meter: string
}

/** A gain to be set by hand: where it stands on its scale, and where the plan would put it. */
export interface ToSet {
  setting: 'gain' | 'fader'
  value: number
  range: GainRange
  /** `null` where it is as planned, or nothing is. */
  planned: number | null
}

/** One step of the run sheet, as the session wants it. */
export interface Instruction {
  /** Stable: made from the strip, the stage and what is done. */
  id: string
  group: Group
  strip: string | null
  stage: string | null
  title: string
  detail: string | null
  /** Worked out when it is first asked for: advice in it is tried before it is given. */
  readonly caution: string | null
  set: ToSet | null
  read: ToRead | null
  /** What it rests on, in short: a tick made with another value of it holds no longer. */
  holds: string
}

export type StepState = 'open' | 'done' | 'again'

export interface Step extends Instruction {
  state: StepState
  /** When it was ticked. */
  at: string | null
}

type Given = Pick<Instruction, 'id' | 'group' | 'title'> & Partial<Omit<Instruction, 'caution'>>
type Caution = string | null | (() => string | null)

/** An instruction with the parts that it lacks; it rests on its own words where nothing else is named. */
export function instruction({ holds, caution = null, ...given }: Given & { caution?: Caution }): Instruction {
  let told = typeof caution === 'function' ? undefined : caution
  return {
    strip: null,
    stage: null,
    detail: null,
    get caution() {
      if (told === undefined) told = typeof caution === 'function' ? caution() : caution
      return told
    },
    set: null,
    read: null,
    ...given,
    holds: digest(holds ?? `${given.title} ${given.detail ?? ''}`),
  }
}

/** A short fingerprint of what a step rests on (FNV-1a, 32 bits). */
export function digest(text: string): string {
  let hash = 0x811c9dc5
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193)
  return (hash >>> 0).toString(16).padStart(8, '0')
}
