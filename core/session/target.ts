import { z } from './z'

/** What of the programme a target looks at: its average, its loudest rehearsed peak, or that peak with the surge. */
export type TargetReading = 'average' | 'peak' | 'surge-peak'

/** A window for the level at the recorder in dBFS, and the level that the planner aims at. */
export interface TargetWindow {
  readonly low: number
  readonly high: number
  readonly aim: number
  readonly reads: TargetReading
}

/** A way of choosing the recording level that some engineers swear by. All are common practice, no source. */
export interface School extends TargetWindow {
  readonly name: string
  readonly users: string
  readonly why: string
}

const school = (low: number, high: number, reads: TargetReading, name: string, users: string, why: string): School => ({
  low,
  high,
  aim: (low + high) / 2,
  reads,
  name,
  users,
  why,
})

/** The seven schools (common practice, no source). */
export const schools = {
  'speech-average': school(
    -12,
    -10,
    'average',
    'Average −12 to −10',
    'Voice work at 16 bits',
    'Keeps speech well above the floor of a 16-bit file; little headroom is left for a raised voice.',
  ),
  'peaks-12-6': school(
    -12,
    -6,
    'peak',
    'Peaks −12 to −6',
    'Music and voice-over',
    'A full-looking level with some room for a louder take.',
  ),
  'peaks-15-12': school(
    -15,
    -12,
    'peak',
    'Peaks −15 to −12',
    'Cautious music tracking',
    'A narrow window that still leaves 12 dB for what was not rehearsed.',
  ),
  'peaks-18-12': school(
    -18,
    -12,
    'peak',
    'Peaks −18 to −12',
    '24-bit recording from a desk',
    'At 24 bits the converter lies far under the room and the preamp, so the headroom costs nothing.',
  ),
  'peaks-20-15': school(
    -20,
    -15,
    'peak',
    'Peaks −20 to −15',
    'Those who record quiet and raise it afterwards',
    'The safest against an unexpected peak; the converter comes nearest to being heard.',
  ),
  'live-6-0': school(
    -6,
    0,
    'peak',
    'Peaks −6 to 0',
    'A live mix feeding a stream',
    'Loud on the desk meter, because nothing is raised afterwards; almost no room above.',
  ),
  'hot-limited': {
    ...school(
      -3,
      0,
      'surge-peak',
      'Just under 0, then limited',
      'A live stream that must be loud',
      'The surge itself must not clip; the loudness is made behind it by a limiter.',
    ),
    aim: -1,
  },
} as const satisfies Record<string, School>

export type SchoolId = keyof typeof schools
export const schoolIds = Object.keys(schools) as SchoolId[]
export const DEFAULT_SCHOOL: SchoolId = 'peaks-18-12'

const edge = z.number().min(-60).max(0)
export const customTarget = z.strictObject({
  low: edge.describe('Lower edge of the window, dBFS.'),
  high: edge.describe('Upper edge of the window, dBFS.'),
  reads: z.enum(['peak', 'average']).default('peak'),
})

export const target = z.union([z.enum(schoolIds), customTarget])
export type Target = z.infer<typeof target>

/** The window that a session's target stands for. */
export function targetWindow(chosen: Target): TargetWindow {
  if (typeof chosen === 'string') return schools[chosen]
  return { ...chosen, aim: (chosen.low + chosen.high) / 2 }
}
