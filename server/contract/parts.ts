import { noiseWords } from '#core/evaluation/verdict'
import { z } from '#core/session/z'

/** What several answers are made of. Every object is exactly as it is sent: nothing is left out, nothing besides. */

/** A schema with a name of its own in the description of the endpoints. */
export const named = z.registry<{ id: string }>()

export function name<S extends z.ZodType>(id: string, schema: S): S {
  named.add(schema, { id })
  return schema
}

export const level = z.number().describe('A level, in the unit named beside it.')
export const decibels = z.number().describe('dB')
export const strip = z.string().describe('The id of a strip.')
export const stage = z.string().describe('The id of a stage.')
const words = z.string()
export const list = <S extends z.ZodType>(of: S) => z.array(of)
export const keysOf = <K extends string>(table: Record<K, unknown>) => z.enum(Object.keys(table) as [K, ...K[]])

const unit = z.enum(['dBSPL', 'dBu', 'dBFS'])
const three = z.strictObject({ average: decibels, peak: decibels, surge: decibels })

const settingChange = z.strictObject({
  strip,
  stage,
  setting: words,
  to: z.union([z.number(), z.boolean(), z.string()]),
})
const box = z.looseObject({ id: words, kind: words, name: words }).describe('A box as in the gear of a session file.')
const feed = z.strictObject({
  from: words.optional(),
  tap: z.enum(['pre', 'post']).optional(),
  gain: decibels.optional(),
})
const settings = z.looseObject({}).describe('Settings as those of a stage in a session file.')
const structureChanges = [
  z.strictObject({
    do: z.literal('insert'),
    strip,
    index: z.number().int(),
    gear: box,
    settings: settings.optional(),
    port: words.optional(),
  }),
  z.strictObject({ do: z.literal('remove'), strip, stage }),
  z.strictObject({ do: z.literal('move'), strip, stage, to: z.number().int() }),
  z.strictObject({ do: z.literal('replace'), strip, stage, gear: box, port: words.optional() }),
  z.strictObject({ do: z.literal('port'), strip, stage, port: words }),
  z.strictObject({ do: z.literal('feed'), strip, to: strip, set: feed }),
]
export const change = name(
  'Change',
  z
    .union([settingChange, ...structureChanges])
    .describe('A change of the session that was tried: it cures, and spoils nothing.'),
)
export const mendChange = name(
  'MendChange',
  z.union([
    change,
    z.strictObject({ do: z.literal('monitor'), strip, set: settings, unset: list(words).optional() }),
    z.strictObject({ do: z.literal('system'), set: settings }),
    z.strictObject({ do: z.literal('volume'), gear: words, loss: decibels }),
    z.strictObject({ do: z.literal('section'), gear: words, section: z.number().int(), on: z.boolean() }),
  ]),
)
export const setting = name('SettingChange', settingChange)

export const point = name(
  'Point',
  z
    .strictObject({
      stage,
      unit,
      average: level,
      peak: level.describe('What the stage would put out had it no ceiling.'),
      surgePeak: level.describe('The peak with the surge.'),
      ceiling: level.nullable().describe('peak + headroom; null where none is known.'),
      headroom: decibels.nullable(),
      surgeHeadroom: decibels.nullable(),
      noise: level.nullable().describe('A-weighted; null where nothing is known to make any.'),
      snr: decibels.nullable().describe('average − noise'),
      reduction: three.nullable().describe('What the curves of the stage take off.'),
      clipped: z.boolean(),
      carriesClipping: z
        .strictObject({ strip, stage })
        .nullable()
        .describe('The earlier stage whose clipping it carries.'),
    })
    .describe('The signal at the output of a stage.'),
)
export const noiseName = keysOf(noiseWords)
const share = z.number().min(0).max(1.000001).describe('0 to 1')
export const contribution = name(
  'Contribution',
  z.strictObject({ strip, stage, name: noiseName, level, share }).describe('One noise at the end of a strip.'),
)
export const sum = name(
  'Sum',
  z
    .strictObject({
      unit,
      average: level,
      likely: level.describe('What the peak is likely to be.'),
      bound: level.describe('What it can be at the very most.'),
      surge: level,
      surges: strip,
      noise: level.nullable(),
      brought: list(
        z.strictObject({ strip, average: level, peak: level, noise: level.nullable(), share, noiseShare: share }),
      ),
    })
    .describe('Where strips meet, on a bus.'),
)
export const feedback = name(
  'Feedback',
  z.strictObject({
    margin: decibels.nullable().describe('What can be turned up before it howls; null where the layout is not given.'),
    microphones: list(
      z.strictObject({
        strips: list(strip),
        loop: decibels,
        without: decibels.nullable().describe('The margin without it.'),
        lowered: decibels.describe('The margin with it 6 dB lower.'),
      }),
    ),
  }),
)
export const stream = name(
  'Stream',
  z.strictObject({
    loudness: z.number().describe('LUFS, estimated'),
    give: z.number().describe('LU that the estimate may be off either way.'),
    wanted: z.number().describe('LUFS'),
    reduction: three,
    gain: decibels.nullable().describe('To be added before the curves; null where no gain reaches it.'),
  }),
)
export const atLeast = z
  .boolean()
  .describe('A unit on the way prints no latency and none was measured: its converters and driver come on top.')
export const route = name(
  'Route',
  z.strictObject({
    route: z.enum(['direct', 'software']),
    milliseconds: z.number(),
    atLeast,
    parts: list(z.strictObject({ name: words, milliseconds: z.number() })),
  }),
)
export const severity = z
  .enum(['stop', 'caution', 'note'])
  .describe('stop: the take would be spoiled or gear harmed; caution: see to it; note: good to know.')
export const uncertain = z.strictObject({
  value: z.number(),
  u: z.number().min(0).describe('Standard uncertainty.'),
  shares: list(
    z.strictObject({
      input: words,
      share: z
        .number()
        .describe('Of the variance; all add to 1. Below 0 where a reading ties it to another that it offsets.'),
    }),
  ),
  curved: z.literal(true).optional(),
  interval: z.strictObject({ low: z.number(), high: z.number() }).optional().describe('Holds 95 % of the draws.'),
})
