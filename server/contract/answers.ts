import { causeIds } from '#core/diagnosis/causes'
import { checks } from '#core/diagnosis/checks'
import { findingCodes } from '#core/session'
import { z } from '#core/session/z'
import { groups } from '#core/soundcheck/step'
import { timingFindingCodes } from '#core/timing/finding-codes'
import {
  atLeast,
  change,
  contribution,
  decibels,
  feedback,
  keysOf,
  level,
  list,
  mendChange,
  name,
  point,
  route,
  setting,
  severity,
  stage,
  stream,
  strip,
  sum,
  uncertain,
} from './parts'

const text = z.string()
const path = text.describe('Names an input, as gear.<id>.<spec> or strips.<strip>.<stage>.<setting>.')
const ms = z.number().describe('ms')
const frames = z.number().int().describe('frames')
const hertz = z.number().describe('Hz')
const probability = z.number().min(0).max(1.000001)
const cell = { sampleRate: hertz, bufferFrames: frames }

const finding = name(
  'Finding',
  z.strictObject({
    code: keysOf({ ...findingCodes, ...timingFindingCodes }),
    severity,
    stage,
    message: text,
    action: text,
    joint: z.literal(true).optional().describe('It is about the joint before this stage.'),
    changes: list(change).optional(),
  }),
)

const evaluation = name(
  'Evaluation',
  z.strictObject({
    strips: list(
      z.strictObject({
        id: strip,
        points: list(point),
        noise: list(contribution).describe('At the last point, the loudest first.'),
        sum: sum.nullable(),
        feedback: feedback.nullable(),
        stream: stream.nullable(),
        findings: list(finding).describe('The gravest first.'),
        tightest: z.strictObject({ stage, headroom: decibels }).nullable(),
        latency: list(route),
      }),
    ),
  }),
)

const plan = name(
  'Plan',
  z.strictObject({
    settings: list(z.strictObject({ strip, stage, setting: text, from: z.number(), to: z.number(), reason: text })),
    strips: list(
      z.strictObject({
        strip,
        gains: list(z.strictObject({ stage, setting: z.enum(['gain', 'fader']), value: decibels, reason: text })),
        off: decibels.describe('How far the planned level lies outside the target: positive over, negative under.'),
        notes: list(text),
        hiss: z.strictObject({ planned: level, naive: level, lower: decibels }).nullable(),
        remedy: z.strictObject({ message: text, decibels, changes: list(change) }).nullable(),
      }),
    ),
    evaluation: evaluation.describe('The session as it would be.'),
  }),
)

const timing = name(
  'Timing',
  z.strictObject({
    matrix: list(
      z.strictObject({
        ...cell,
        bufferMs: ms,
        softwareMs: ms,
        atLeast,
        directMs: ms.nullable(),
        source: z.enum(['model', 'fitted', 'measured']),
        spread: ms.optional(),
        loadPercent: z.number().optional(),
        loadSource: z.enum(['measured', 'fitted']).optional(),
        sustainable: z.boolean().optional(),
      }),
    ),
    fit: z
      .strictObject({
        buffers: z.number(),
        frames: z.number(),
        fixedMs: ms,
        residualMs: ms,
        separable: z.boolean(),
        points: z.number().int(),
        spreads: z.strictObject({ buffers: z.number(), frames: z.number(), fixedMs: ms }).partial(),
      })
      .optional(),
    loadModel: z
      .strictObject({ perBufferMs: ms, perFrameMs: ms, readings: z.number().int(), assumption: text.nullable() })
      .optional(),
    recommendations: list(
      z.strictObject({
        strip,
        route: z.enum(['direct', 'software']),
        ...cell,
        milliseconds: ms,
        atLeast,
        sustained: z
          .boolean()
          .describe('False where no buffer at any rate is sustained: then it is what comes closest.'),
        reason: text,
      }),
    ),
    overdubOffsetFrames: frames.optional().describe('Positive: takes lie too late and are to be moved earlier.'),
    overdubOffsetMs: ms.optional(),
    findings: list(z.strictObject({ code: keysOf(timingFindingCodes), severity, message: text, action: text })),
    remedies: list(text).describe('Against crackles and dropouts, what helps most first.'),
  }),
)

const uncertainty = name(
  'HowSure',
  z.strictObject({
    inputs: list(
      z.strictObject({
        path,
        label: text,
        of: text,
        unit: text,
        value: z.number(),
        origin: z.enum(['measured', 'printed', 'assumed']),
        u: z.number().min(0),
        uUnit: text,
        on: text.optional(),
        strips: list(strip),
      }),
    ),
    strips: list(
      z.strictObject({
        id: strip,
        points: list(
          z.strictObject({
            stage,
            average: uncertain,
            peak: uncertain,
            surgePeak: uncertain,
            headroom: uncertain.nullable(),
            surgeHeadroom: uncertain.nullable(),
            noise: uncertain.nullable(),
            snr: uncertain.nullable(),
          }),
        ),
        sum: z.strictObject({ average: uncertain, likely: uncertain, bound: uncertain }).nullable(),
        latency: list(uncertain.extend({ route: z.enum(['direct', 'software']) })),
        chanceOfClipping: z.strictObject({ now: probability, surge: probability }).nullable(),
      }),
    ),
    next: list(
      z.strictObject({
        what: text,
        strip,
        figure: z.enum(['headroom', 'snr', 'roundTrip']),
        before: z.number().describe('Standard uncertainty now, dB or ms.'),
        after: z.number().describe('Standard uncertainty then.'),
        minutes: z.number(),
        place: z.looseObject({ at: text }),
      }),
    ),
  }),
)

const soundcheck = name(
  'Soundcheck',
  z.strictObject({
    steps: list(
      z.strictObject({
        id: text.describe('Stable: made from the strip, the stage and what is done.'),
        group: z.enum(groups),
        strip: strip.nullable(),
        stage: stage.nullable(),
        title: text,
        detail: text.nullable(),
        caution: text.nullable(),
        set: z
          .strictObject({
            setting: z.enum(['gain', 'fader']),
            value: decibels,
            range: z.looseObject({ gainMin: decibels, gainMax: decibels, gainStep: decibels }),
            planned: decibels.nullable(),
          })
          .nullable(),
        read: z
          .strictObject({ stage, reads: text, low: level, high: level, unit: text, meter: text })
          .nullable()
          .describe('What a meter must show on the loudest passage.'),
        holds: text,
        state: z.enum(['open', 'done', 'again']),
        at: text.nullable(),
      }),
    ),
    readings: list(
      z.strictObject({
        id: text,
        difference: decibels.nullable(),
        explains: list(z.strictObject({ input: path, name: text, cause: text, shift: decibels, u: decibels })),
        contradicts: z.strictObject({ reading: text.nullable(), z: z.number() }).nullable(),
        fault: z
          .boolean()
          .describe('Over 20 dB or 4 standard uncertainties off: nothing is turned until it is cleared.'),
        changes: list(setting),
        then: level.nullable(),
        thenAtLeast: z.boolean(),
        chance: probability.nullable().describe('That the take clips.'),
        says: text,
      }),
    ),
    open: z.number().int().min(0),
  }),
)

const checkId = keysOf(checks)
const causeId = z.enum([...causeIds, 'something-else'])
const asked = z.strictObject({
  check: checkId,
  ask: text,
  outcomes: z.record(text, text),
  minutes: z.number(),
  information: z.number().describe('bits'),
  caution: text.optional(),
})
const diagnosis = name(
  'Diagnosis',
  z.strictObject({
    causes: list(
      z.strictObject({
        id: causeId,
        title: text,
        probability,
        strip: strip.nullable(),
        evidence: list(z.strictObject({ says: text, speaks: z.enum(['for', 'against', 'neither']) })),
        ruledOut: text.nullable(),
        test: checkId.nullable(),
        mend: z
          .strictObject({ says: text, changes: list(mendChange).optional(), caution: text.optional(), after: text })
          .nullable(),
      }),
    ),
    next: asked.nullable(),
    others: list(asked),
    sure: causeId.nullable(),
  }),
)

const figureRef = z.strictObject({ strip, stage: text, figure: text })
const part = z.strictObject({
  name: text,
  value: z.number(),
  unit: text,
  adds: z.number().nullable(),
  u: z.number().nullable(),
  uUnit: text.optional(),
  origin: z.enum(['measured', 'printed', 'assumed']).optional(),
  on: text.optional(),
  method: text.optional(),
  path: path.optional(),
  place: z.looseObject({ in: text }).optional(),
  share: z.number().optional(),
  figure: figureRef.optional().describe('Can be asked for in its turn.'),
})
const explanation = name(
  'Explanation',
  z.strictObject({
    result: figureRef.extend({
      title: text,
      value: z.number(),
      unit: text,
      u: z.number().nullable(),
      interval: z.strictObject({ low: z.number(), high: z.number() }).optional(),
    }),
    formula: z.strictObject({ id: text, text, mathml: text, check: text }),
    source: text,
    withNumbers: text,
    inputs: list(part),
    doubts: list(part),
    remarks: list(text),
  }),
)

const dbfs = level.nullable().describe('dBFS (AES17); null for silence.')
const lufs = z.number().nullable().describe('LUFS; null where nothing passes the gate.')
const loudness = {
  integrated: lufs,
  momentaryMax: lufs,
  shortTermMax: lufs,
  range: z.number().nullable().describe('LU'),
}
const levels = name(
  'Levels',
  z.strictObject({
    format: z.looseObject({
      encoding: z.enum(['integer', 'float']),
      bits: z.number().int(),
      channels: z.number().int(),
      sampleRate: hertz,
      frames: z.number().int(),
      seconds: z.number(),
    }),
    channels: list(
      z.strictObject({
        peak: dbfs,
        peakSeconds: z.number(),
        truePeak: dbfs,
        rms: dbfs,
        rmsA: dbfs,
        crest: decibels.nullable(),
        dc: dbfs,
        dcPolarity: z.union([z.literal(1), z.literal(-1)]),
        clippedRuns: list(z.strictObject({ from: z.number(), seconds: z.number(), frames })),
        clippedRunCount: z.number().int(),
        floor: dbfs.describe('RMS of the quietest second.'),
        ...loudness,
      }),
    ),
    programme: z.strictObject(loudness),
    remarks: list(text),
  }),
)
const loopback = name(
  'Loopback',
  z.strictObject({
    lagFrames: z.number(),
    milliseconds: ms,
    polarity: z.union([z.literal(1), z.literal(-1)]),
    level: decibels.describe('Return against reference.'),
    confidence: z.number().min(0).max(1).describe('From 0.5 on it is beyond doubt.'),
    repeats: list(z.number()),
    spreadFrames: z.number(),
    driftPpm: z.number().nullable(),
    remarks: list(text),
  }),
)

export const problem = name(
  'Problem',
  z
    .strictObject({
      type: text,
      title: text,
      status: z.number().int(),
      detail: text,
      errors: list(z.strictObject({ path: text, code: text, message: text })),
    })
    .describe('RFC 9457; every fault at once, each with its path.'),
)

/** What is answered, by the name under which its schema is had. */
export const answers = {
  evaluation,
  plan,
  timing,
  uncertainty,
  soundcheck,
  diagnosis,
  explanation,
  levels,
  loopback,
  problem,
} as const
