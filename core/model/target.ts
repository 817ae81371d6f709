import { numberSchema } from './field'
import { described, z } from './z'

/** What of the programme a target looks at: its average, its loudest rehearsed peak, or that peak with the surge. */
export type TargetReading = 'average' | 'peak' | 'surge-peak'

/** A window for the level at the recorder in dBFS, and the level that the planner aims at. */
export interface TargetWindow {
  readonly low: number
  readonly high: number
  readonly aim: number
  readonly reads: TargetReading
  /** Read on the desk's meter, where there is a desk. */
  readonly at?: 'desk'
}

/** A way of choosing the recording level that some engineers swear by. All are common practice, no source. */
interface Named {
  readonly name: string
  readonly users: string
  readonly why: string
}

/** One that names a window. */
type WindowConvention = Named & TargetWindow

/** One that names a chance that the take clips, %; its window follows from how well the source is known. */
interface RiskConvention extends Named {
  readonly risk: number
}

export type LevelConvention = WindowConvention | RiskConvention

const peaks = (low: number, high: number, users: string, why: string): WindowConvention => ({
  low,
  high,
  aim: (low + high) / 2,
  reads: 'peak',
  name: `Peaks −${-low} to ${high < 0 ? `−${-high}` : high}`,
  users,
  why,
})

/** The level conventions (common practice, no source). */
export const conventions = {
  'speech-average': {
    low: -12,
    high: -10,
    aim: -11,
    reads: 'average',
    name: 'Average −12 to −10',
    users: 'Voice work at 16 bits',
    why: 'Keeps speech well above the floor of a 16-bit file; little headroom is left for a raised voice.',
  },
  'peaks-12-6': peaks(-12, -6, 'Music and voice-over', 'A full-looking level with some room for a louder take.'),
  'peaks-15-12': peaks(
    -15,
    -12,
    'Cautious music tracking',
    'A narrow window that still leaves 12 dB for what was not rehearsed.',
  ),
  'peaks-18-12': peaks(
    -18,
    -12,
    '24-bit recording from a desk',
    'At 24 bits the converter lies far under the room and the preamp, so the headroom costs nothing.',
  ),
  'peaks-20-15': peaks(
    -20,
    -15,
    'Those who record quiet and raise it afterwards',
    'The safest against an unexpected peak; the converter comes nearest to being heard.',
  ),
  'live-6-0': {
    ...peaks(
      -6,
      0,
      'A live mix feeding a stream',
      'Read on the desk’s meter, or on the recorder’s where there is no desk. Loud, because nothing is raised afterwards; almost no room above.',
    ),
    at: 'desk',
  },
  'hot-limited': {
    low: -3,
    high: 0,
    aim: -1,
    reads: 'surge-peak',
    name: 'Just under 0, then limited',
    users: 'A live stream that must be loud',
    why: 'The surge itself must not clip; the loudness is made behind it by a limiter.',
  },
  'by-risk': {
    risk: 1,
    name: 'By risk',
    users: 'Those who would rather know the odds',
    why: 'The highest gain with at most 1 % risk of clipping. It follows from the surge and from how well level, crest factor, sensitivity and gain are known.',
  },
} as const satisfies Record<string, LevelConvention>

export type ConventionId = keyof typeof conventions
export const conventionIds = Object.keys(conventions) as ConventionId[]
export const DEFAULT_CONVENTION: ConventionId = 'peaks-18-12'

const edge = z.number().check(z.minimum(-60), z.maximum(0))
export const customTarget = z.strictObject({
  low: described('Lower edge of the window, dBFS.', edge),
  high: described('Upper edge of the window, dBFS.', edge),
  reads: z._default(z.enum(['peak', 'average']), 'peak'),
})

/** Chances that can be asked for, %. */
export const riskField = {
  label: 'Chance that it clips',
  unit: '%',
  min: 0.01,
  max: 50,
  help: 'At most this risk of clipping, the surge included.',
} as const
export const riskTarget = z.strictObject({ risk: numberSchema(riskField) })

export const target = z.union([z.enum(conventionIds), customTarget, riskTarget])
export type Target = z.infer<typeof target>

/** What a session's target stands for: a window, or the chance of clipping in % that a window is yet to be found for. */
export function targetOf(chosen: Target): TargetWindow | { risk: number } {
  if (typeof chosen === 'string') return conventions[chosen]
  return 'risk' in chosen ? chosen : { ...chosen, aim: (chosen.low + chosen.high) / 2 }
}
