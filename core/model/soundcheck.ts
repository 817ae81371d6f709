import { id } from './text'
import { described, z } from './z'

/** What a meter shows: the highest sample, an average, a VU’s needle, a light that flickers at a level, PFL, a sound level. */
export const readingKinds = ['peak', 'average', 'vu', 'light', 'pfl', 'spl'] as const
export type ReadingKind = (typeof readingKinds)[number]

/** One look at a meter during the loudest passage. */
export const reading = z.strictObject({
  id,
  strip: id,
  stage: described('The stage at whose output it was read.', id),
  reads: z._default(z.enum(readingKinds), 'peak'),
  value: z.number().check(z.minimum(-200), z.maximum(200)),
  unit: z._default(z.enum(['dBFS', 'dBu', 'dB SPL', 'dB', 'VU']), 'dBFS'),
  by: z._default(z.enum(['typed', 'live', 'file']), 'typed'),
  spread: described(
    'Its standard uncertainty, dB; left out: what its kind is worth.',
    z.optional(z.number().check(z.minimum(0), z.maximum(40))),
  ),
  at: z.optional(z.iso.datetime({ offset: true })),
  expected: described(
    'What was expected there, with the settings of that moment; left out: with those of now.',
    z.optional(z.number().check(z.minimum(-400), z.maximum(400))),
  ),
  limit: described(
    'A lit light, a meter at its top or a clipped file: the level is the value or more. An unlit light: or less.',
    z.optional(z.enum(['at-least', 'at-most'])),
  ),
  kept: described('What it says was taken into the session as measured.', z.optional(z.boolean())),
})
export type Reading = z.infer<typeof reading>

/** A step of the run sheet that was done. */
export const tick = z.strictObject({
  step: z.string().check(z.minLength(1), z.maxLength(300)),
  at: z.optional(z.iso.datetime({ offset: true })),
  holds: described(
    'What was set up to there when it was done, in short; another value of it opens the step again.',
    z.optional(z.string().check(z.maxLength(64))),
  ),
})
export type Tick = z.infer<typeof tick>

/** Steps and readings that a session holds at most. */
export const MOST_ENTRIES = 1000

export const soundcheck = z.strictObject({
  ticks: z.optional(z.array(tick).check(z.maxLength(MOST_ENTRIES))),
  readings: z.optional(z.array(reading).check(z.maxLength(MOST_ENTRIES))),
})

/**
 * Standard uncertainty of a reading by the kind of its meter, dB (common practice, no source): one whose ballistics are not known is
 * worth ±3 dB.
 */
export const readingWorth: Record<ReadingKind, number> = {
  peak: 0.5,
  average: 0.5,
  vu: 3 / Math.sqrt(3),
  light: 3 / Math.sqrt(3),
  pfl: 1,
  spl: 1,
}
