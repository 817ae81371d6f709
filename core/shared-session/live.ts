import type { LiveSnapshot } from '../measure/live/live-meter'
import { id } from '../model/text'
import { described, z } from '../model/z'
import { settings } from '../model/settings'
import type { Notice } from '../watch/notices'
import type { WatchReadings } from '../watch/inference'

/** What the opener's inputs show, as it goes to the other devices: small, twenty times a second; larger parts seldom. */

const level = z.nullable(z.number())
const words = z.string().check(z.maxLength(2000))
const MOST_CHANNELS = 64

const now = z.strictObject({ peak: level, average: level })
const snapshot = z.strictObject({
  seconds: z.number(),
  now,
  passage: z.strictObject({
    seconds: z.number(),
    peak: level,
    peakAgo: z.number(),
    truePeak: level,
    average: level,
    loudest: level,
    crest: level,
    clippedRuns: z.number(),
    integrated: level,
  }),
  momentary: level,
  shortTerm: level,
  floor: level,
})

const change = z.strictObject({
  strip: id,
  stage: id,
  setting: z.keyof(settings),
  to: z.union([z.number(), z.boolean(), z.string().check(z.maxLength(200))]),
})
const laneReading = z.strictObject({
  strip: id,
  reads: z.enum(['peak', 'average']),
  value: z.number(),
  inferred: z.strictObject({
    id: z.string().check(z.maxLength(100)),
    difference: level,
    explains: z.array(z.unknown()).check(z.maxLength(0)),
    contradicts: z.nullable(z.strictObject({ reading: z.nullable(z.string()), z: z.number() })),
    fault: z.boolean(),
    changes: z.array(change).check(z.maxLength(20)),
    then: level,
    thenAtLeast: z.boolean(),
    chance: level,
    says: words,
  }),
})
const notice = z.strictObject({
  id: z.string().check(z.maxLength(200)),
  strip: id,
  says: words,
  sure: z.number(),
  faults: z.nullable(
    z.strictObject({ symptom: z.string().check(z.maxLength(60)), answers: z.record(z.string(), z.string()) }),
  ),
})

/** What is listened to. */
const source = z.enum(['none', 'device', 'file', 'simulated'])

/** Processing that the opener’s browser could not switch off: such levels are no readings. */
const processed = z.array(z.string().check(z.maxLength(60))).check(z.maxLength(8))

export const liveInputs = z.strictObject({
  source,
  processed,
  channels: z.int().check(z.minimum(0), z.maximum(MOST_CHANNELS)),
  now: described('By channel, since the message before.', z.array(now).check(z.maxLength(MOST_CHANNELS))),
  snapshots: z.optional(z.array(snapshot).check(z.maxLength(MOST_CHANNELS))),
  said: z.optional(
    z.strictObject({
      lanes: z.array(laneReading).check(z.maxLength(MOST_CHANNELS)),
      common: z.nullable(words),
      notices: z.array(notice).check(z.maxLength(500)),
      moved: z.record(z.string(), z.int()),
    }),
  ),
})
export const liveGauge = z.strictObject({
  source,
  processed,
  /** The strip that is heard. */
  strip: z.nullable(id),
  snapshot: z.nullable(snapshot),
})

/** Of the inputs, of the one gauge, or of neither. */
export const live = z.strictObject({ inputs: z.optional(liveInputs), gauge: z.optional(liveGauge) })
export type Live = z.infer<typeof live>
export type LiveInputs = z.infer<typeof liveInputs>

/** Levels to the tenth of a decibel that is shown: a third of the characters. */
const rounded = (value: number | null): number | null => (value === null ? null : Math.round(10 * value) / 10)

export const nowOf = ({ now: { peak, average } }: LiveSnapshot) => ({ peak: rounded(peak), average: rounded(average) })

export const roundedSnapshot = (given: LiveSnapshot): LiveSnapshot =>
  JSON.parse(
    JSON.stringify(given, (_, value: unknown) => (typeof value === 'number' ? Math.round(100 * value) / 100 : value)),
  ) as LiveSnapshot

/** What is said of the inputs, without what only explains it. */
export function saidOf(
  readings: WatchReadings | null,
  notices: readonly Notice[],
  moved: Readonly<Record<string, number>>,
): NonNullable<LiveInputs['said']> {
  const lanes = (readings?.lanes ?? []).map(({ strip, reads, value, inferred }) => ({
    strip,
    reads,
    value,
    inferred: { ...inferred, explains: [] },
  }))
  return JSON.parse(JSON.stringify({ lanes, common: readings?.common ?? null, notices, moved })) as NonNullable<
    LiveInputs['said']
  >
}
