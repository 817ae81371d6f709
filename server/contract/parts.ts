import { noiseWords } from '#core/evaluation/verdict'
import { described, z } from '#core/model/z'

/** What several answers are made of. Every object is exactly as it is sent: nothing is left out, nothing besides. */

/** A schema with a name of its own in the description of the endpoints. */
export const named = z.registry<{ id: string }>()

export function name<S extends z.ZodMiniType>(id: string, schema: S): S {
  named.add(schema, { id })
  return schema
}

export const level = described('A level, in the unit named beside it.', z.number())
export const decibels = described('dB', z.number())
export const strip = described('The id of a strip.', z.string())
export const stage = described('The id of a stage.', z.string())
const words = z.string()
export const list = <S extends z.ZodMiniType>(of: S) => z.array(of)
export const keysOf = <K extends string>(table: Record<K, unknown>) => z.enum(Object.keys(table) as [K, ...K[]])

const unit = z.enum(['dBSPL', 'dBu', 'dBFS'])
const three = z.strictObject({ average: decibels, peak: decibels, surge: decibels })

const settingChange = z.strictObject({
  strip,
  stage,
  setting: words,
  to: z.union([z.number(), z.boolean(), z.string()]),
})
const box = described(
  'A device as in the gear of a session file.',
  z.looseObject({ id: words, kind: words, name: words }),
)
const feed = z.strictObject({
  from: z.optional(words),
  tap: z.optional(z.enum(['pre', 'post'])),
  gain: z.optional(decibels),
})
const settings = described('Settings as those of a stage in a session file.', z.looseObject({}))
const structureChanges = [
  z.strictObject({
    do: z.literal('insert'),
    strip,
    index: z.int(),
    gear: box,
    settings: z.optional(settings),
    port: z.optional(words),
  }),
  z.strictObject({ do: z.literal('remove'), strip, stage }),
  z.strictObject({ do: z.literal('move'), strip, stage, to: z.int() }),
  z.strictObject({ do: z.literal('replace'), strip, stage, gear: box, port: z.optional(words) }),
  z.strictObject({ do: z.literal('port'), strip, stage, port: words }),
  z.strictObject({ do: z.literal('feed'), strip, to: strip, set: feed }),
]
export const change = name(
  'Change',
  described(
    'A change of the session that was tried: it cures, and spoils nothing.',
    z.union([settingChange, ...structureChanges]),
  ),
)
export const fixChange = name(
  'FixChange',
  z.union([
    change,
    z.strictObject({ do: z.literal('monitor'), strip, set: settings, unset: z.optional(list(words)) }),
    z.strictObject({ do: z.literal('system'), set: settings }),
    z.strictObject({ do: z.literal('volume'), gear: words, loss: decibels }),
    z.strictObject({ do: z.literal('section'), gear: words, section: z.int(), on: z.boolean() }),
  ]),
)
export const setting = name('SettingChange', settingChange)

export const point = name(
  'Point',
  described(
    'The signal at the output of a stage.',
    z.strictObject({
      stage,
      unit,
      average: level,
      peak: described('What the stage would put out had it no ceiling.', level),
      surgePeak: described('The peak with the surge.', level),
      ceiling: described('peak + headroom; null where none is known.', z.nullable(level)),
      headroom: z.nullable(decibels),
      surgeHeadroom: z.nullable(decibels),
      noise: described('A-weighted; null where nothing is known to make any.', z.nullable(level)),
      snr: described('average − noise', z.nullable(decibels)),
      reduction: described('What the curves of the stage take off.', z.nullable(three)),
      clipped: z.boolean(),
      carriesClipping: described(
        'The earlier stage whose clipping it carries.',
        z.nullable(z.strictObject({ strip, stage })),
      ),
    }),
  ),
)
export const noiseName = keysOf(noiseWords)
const share = described('0 to 1', z.number().check(z.minimum(0), z.maximum(1.000001)))
export const contribution = name(
  'Contribution',
  described('One noise at the end of a strip.', z.strictObject({ strip, stage, name: noiseName, level, share })),
)
export const sum = name(
  'Sum',
  described(
    'Where strips meet, on a bus.',
    z.strictObject({
      unit,
      average: level,
      likely: described('What the peak is likely to be.', level),
      bound: described('What it can be at the very most.', level),
      surge: level,
      surges: strip,
      noise: z.nullable(level),
      brought: list(
        z.strictObject({ strip, average: level, peak: level, noise: z.nullable(level), share, noiseShare: share }),
      ),
    }),
  ),
)
export const feedback = name(
  'Feedback',
  z.strictObject({
    margin: described('Gain before feedback, dB; null where the layout is not given.', z.nullable(decibels)),
    microphones: list(
      z.strictObject({
        strips: list(strip),
        loop: decibels,
        without: described('The margin without it.', z.nullable(decibels)),
        lowered: described('The margin with it 6 dB lower.', decibels),
      }),
    ),
  }),
)
export const stream = name(
  'Stream',
  z.strictObject({
    loudness: described('LUFS, estimated', z.number()),
    give: described('LU that the estimate may be off either way.', z.number()),
    wanted: described('LUFS', z.number()),
    reduction: three,
    gain: described('To be added before the curves; null where no gain reaches it.', z.nullable(decibels)),
  }),
)
export const atLeast = described(
  'A unit on the way prints no latency and none was measured: its converters and driver come on top.',
  z.boolean(),
)
export const route = name(
  'Route',
  z.strictObject({
    route: z.enum(['direct', 'software']),
    milliseconds: z.number(),
    atLeast,
    parts: list(z.strictObject({ name: words, milliseconds: z.number() })),
  }),
)
export const severity = described(
  'stop: the take would be spoiled or gear harmed; caution: see to it; note: good to know.',
  z.enum(['stop', 'caution', 'note']),
)
export const uncertain = z.strictObject({
  value: z.number(),
  u: described('Standard uncertainty.', z.number().check(z.minimum(0))),
  shares: list(
    z.strictObject({
      input: words,
      share: described(
        'Of the variance; all add to 1. Below 0 where a reading ties it to another that it offsets.',
        z.number(),
      ),
    }),
  ),
  curved: z.optional(z.literal(true)),
  interval: described('Holds 95 % of the draws.', z.optional(z.strictObject({ low: z.number(), high: z.number() }))),
})
