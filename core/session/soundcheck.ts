import { id } from './text'
import { z } from './z'

/** What a meter shows: the highest sample, an average, a VU’s needle, a light that flickers at a level, PFL, a sound level. */
export const readingKinds = ['peak', 'average', 'vu', 'light', 'pfl', 'spl'] as const
export type ReadingKind = (typeof readingKinds)[number]

/** One look at a meter during the loudest passage. */
export const reading = z.strictObject({
  id,
  strip: id,
  stage: id.describe('The stage at whose output it was read.'),
  reads: z.enum(readingKinds).default('peak'),
  value: z.number().min(-200).max(200),
  unit: z.enum(['dBFS', 'dBu', 'dB SPL', 'dB', 'VU']).default('dBFS'),
  by: z.enum(['typed', 'live', 'file']).default('typed'),
  spread: z
    .number()
    .min(0)
    .max(40)
    .optional()
    .describe('Its standard uncertainty, dB; left out: what its kind is worth.'),
  at: z.iso.datetime({ offset: true }).optional(),
  expected: z
    .number()
    .min(-400)
    .max(400)
    .optional()
    .describe('What was expected there, with the settings of that moment; left out: with those of now.'),
  limit: z
    .enum(['at-least', 'at-most'])
    .optional()
    .describe(
      'A lit light, a meter at its top or a clipped file: the level is the value or more. An unlit light: or less.',
    ),
  kept: z.boolean().optional().describe('What it says was taken into the session as measured.'),
})
export type Reading = z.infer<typeof reading>

/** A step of the run sheet that was done. */
export const tick = z.strictObject({
  step: z.string().min(1).max(300),
  at: z.iso.datetime({ offset: true }).optional(),
  holds: z
    .string()
    .max(64)
    .optional()
    .describe('What was set up to there when it was done, in short; another value of it opens the step again.'),
})
export type Tick = z.infer<typeof tick>

/** Steps and readings that a session holds at most. */
export const MOST_ENTRIES = 1000

export const soundcheck = z.strictObject({
  ticks: z.array(tick).max(MOST_ENTRIES).optional(),
  readings: z.array(reading).max(MOST_ENTRIES).optional(),
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
