import { causeIds } from '#core/diagnosis/causes'
import { checks } from '#core/diagnosis/checks'
import { findingCodes } from '#core/checks/finding-codes'
import { described, z } from '#core/model/z'
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
  fixChange,
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
const path = described('Names an input, as gear.<id>.<spec> or strips.<strip>.<stage>.<setting>.', text)
const ms = described('ms', z.number())
const frames = described('frames', z.int())
const hertz = described('Hz', z.number())
const probability = z.number().check(z.minimum(0), z.maximum(1.000001))
const cell = { sampleRate: hertz, bufferFrames: frames }

const finding = name(
  'Finding',
  z.strictObject({
    code: keysOf({ ...findingCodes, ...timingFindingCodes }),
    severity,
    stage,
    message: text,
    action: text,
    joint: described('It is about the connection before this stage.', z.optional(z.literal(true))),
    changes: z.optional(list(change)),
  }),
)

const evaluation = name(
  'Evaluation',
  z.strictObject({
    strips: list(
      z.strictObject({
        id: strip,
        points: list(point),
        noise: described('At the last point, the loudest first.', list(contribution)),
        sum: z.nullable(sum),
        feedback: z.nullable(feedback),
        stream: z.nullable(stream),
        findings: described('The gravest first.', list(finding)),
        tightest: z.nullable(z.strictObject({ stage, headroom: decibels })),
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
        off: described('How far the planned level lies outside the target: positive over, negative under.', decibels),
        notes: list(text),
        hiss: z.nullable(z.strictObject({ planned: level, naive: level, lower: decibels })),
        remedy: z.nullable(z.strictObject({ message: text, decibels, changes: list(change) })),
      }),
    ),
    evaluation: described('The session as it would be.', evaluation),
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
        directMs: z.nullable(ms),
        source: z.enum(['model', 'fitted', 'measured']),
        spread: z.optional(ms),
        loadPercent: z.optional(z.number()),
        loadSource: z.optional(z.enum(['measured', 'fitted'])),
        loadLimit: z.optional(z.enum(['at least', 'at most'])),
        sustainable: z.optional(z.boolean()),
      }),
    ),
    fit: z.optional(
      z.strictObject({
        buffers: z.number(),
        frames: z.number(),
        fixedMs: ms,
        residualMs: ms,
        separable: z.boolean(),
        points: z.int(),
        spreads: z.partial(z.strictObject({ buffers: z.number(), frames: z.number(), fixedMs: ms })),
      }),
    ),
    loadModel: z.optional(
      z.strictObject({
        perBufferMs: z.nullable(ms),
        perFrameMs: z.nullable(ms),
        readings: z.int(),
        assumption: z.nullable(text),
        only: z.optional(z.strictObject({ bufferFrames: z.number(), ms })),
      }),
    ),
    recommendations: list(
      z.strictObject({
        strip,
        route: z.enum(['direct', 'software']),
        ...cell,
        milliseconds: ms,
        atLeast,
        sustained: described(
          'False where no buffer at any rate is sustained: then it is what comes closest.',
          z.boolean(),
        ),
        reason: text,
      }),
    ),
    overdubOffsetFrames: described('Positive: takes lie too late and are to be moved earlier.', z.optional(frames)),
    overdubOffsetMs: z.optional(ms),
    findings: list(z.strictObject({ code: keysOf(timingFindingCodes), severity, message: text, action: text })),
    remedies: described('What to try against crackles and dropouts, what helps most first.', list(text)),
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
        u: z.number().check(z.minimum(0)),
        uUnit: text,
        on: z.optional(text),
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
            headroom: z.nullable(uncertain),
            surgeHeadroom: z.nullable(uncertain),
            noise: z.nullable(uncertain),
            snr: z.nullable(uncertain),
          }),
        ),
        sum: z.nullable(z.strictObject({ average: uncertain, likely: uncertain, bound: uncertain })),
        latency: list(z.extend(uncertain, { route: z.enum(['direct', 'software']) })),
        chanceOfClipping: z.nullable(z.strictObject({ now: probability, surge: probability })),
      }),
    ),
    next: list(
      z.strictObject({
        what: text,
        strip,
        figure: z.enum(['headroom', 'snr', 'roundTrip']),
        before: described('Standard uncertainty now, dB or ms.', z.number()),
        after: described('Standard uncertainty then.', z.number()),
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
        id: described('Stable: made from the strip, the stage and what is done.', text),
        group: z.enum(groups),
        strip: z.nullable(strip),
        stage: z.nullable(stage),
        title: text,
        detail: z.nullable(text),
        caution: z.nullable(text),
        set: z.nullable(
          z.strictObject({
            setting: z.enum(['gain', 'fader']),
            value: decibels,
            range: z.looseObject({ gainMin: decibels, gainMax: decibels, gainStep: decibels }),
            planned: z.nullable(decibels),
          }),
        ),
        read: described(
          'What a meter must show on the loudest passage.',
          z.nullable(z.strictObject({ stage, reads: text, low: level, high: level, unit: text, meter: text })),
        ),
        holds: text,
        state: z.enum(['open', 'done', 'again']),
        at: z.nullable(text),
      }),
    ),
    readings: list(
      z.strictObject({
        id: text,
        difference: z.nullable(decibels),
        explains: list(z.strictObject({ input: path, name: text, cause: text, shift: decibels, u: decibels })),
        contradicts: z.nullable(z.strictObject({ reading: z.nullable(text), z: z.number() })),
        fault: described(
          'Over 20 dB or 4 standard uncertainties off: nothing is turned until it is cleared.',
          z.boolean(),
        ),
        changes: list(setting),
        then: z.nullable(level),
        thenAtLeast: z.boolean(),
        chance: described('That the take clips.', z.nullable(probability)),
        says: text,
      }),
    ),
    open: z.int().check(z.minimum(0)),
  }),
)

const checkId = keysOf(checks)
const causeId = z.enum([...causeIds, 'something-else'])
const asked = z.strictObject({
  check: checkId,
  ask: text,
  outcomes: z.record(text, text),
  minutes: z.number(),
  information: described('bits', z.number()),
  caution: z.optional(text),
})
const diagnosis = name(
  'Diagnosis',
  z.strictObject({
    causes: list(
      z.strictObject({
        id: causeId,
        title: text,
        probability,
        strip: z.nullable(strip),
        evidence: list(z.strictObject({ says: text, speaks: z.enum(['for', 'against', 'neither']) })),
        ruledOut: z.nullable(text),
        test: z.nullable(checkId),
        fix: z.nullable(
          z.strictObject({ says: text, changes: z.optional(list(fixChange)), caution: z.optional(text), after: text }),
        ),
        finding: z.optional(text),
      }),
    ),
    next: z.nullable(asked),
    others: list(asked),
    sure: z.nullable(causeId),
  }),
)

const figureRef = z.strictObject({ strip, stage: text, figure: text })
const part = z.strictObject({
  name: text,
  value: z.number(),
  unit: text,
  adds: z.nullable(z.number()),
  u: z.nullable(z.number()),
  uUnit: z.optional(text),
  origin: z.optional(z.enum(['measured', 'printed', 'assumed'])),
  on: z.optional(text),
  method: z.optional(text),
  path: z.optional(path),
  place: z.optional(z.looseObject({ in: text })),
  share: z.optional(z.number()),
  figure: described('Can be asked for in its turn.', z.optional(figureRef)),
})
const explanation = name(
  'Explanation',
  z.strictObject({
    result: z.extend(figureRef, {
      title: text,
      value: z.number(),
      unit: text,
      u: z.nullable(z.number()),
      interval: z.optional(z.strictObject({ low: z.number(), high: z.number() })),
    }),
    formula: z.strictObject({ id: text, text, mathml: text, check: text }),
    source: text,
    withNumbers: text,
    inputs: list(part),
    doubts: list(part),
    remarks: list(text),
  }),
)

const dbfs = described('dBFS (AES17); null for silence.', z.nullable(level))
const lufs = described('LUFS; null where nothing passes the gate.', z.nullable(z.number()))
const loudness = {
  integrated: lufs,
  momentaryMax: lufs,
  shortTermMax: lufs,
  range: described('LU', z.nullable(z.number())),
}
const levels = name(
  'Levels',
  z.strictObject({
    format: z.looseObject({
      encoding: z.enum(['integer', 'float']),
      bits: z.int(),
      channels: z.int(),
      sampleRate: hertz,
      frames: z.int(),
      seconds: z.number(),
    }),
    channels: list(
      z.strictObject({
        peak: dbfs,
        peakSeconds: z.number(),
        truePeak: dbfs,
        rms: dbfs,
        rmsA: dbfs,
        crest: z.nullable(decibels),
        dc: dbfs,
        dcPolarity: z.union([z.literal(1), z.literal(-1)]),
        clippedRuns: list(z.strictObject({ from: z.number(), seconds: z.number(), frames })),
        clippedRunCount: z.int(),
        floor: described('RMS of the quietest second.', dbfs),
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
    level: described('Return against reference.', decibels),
    confidence: described('From 0.5 on it is beyond doubt.', z.number().check(z.minimum(0), z.maximum(1))),
    repeats: list(z.number()),
    spreadFrames: z.number(),
    driftPpm: z.nullable(z.number()),
    remarks: list(text),
  }),
)

export const problem = name(
  'Problem',
  described(
    'RFC 9457; every fault at once, each with its path.',
    z.strictObject({
      type: text,
      title: text,
      status: z.int(),
      detail: text,
      errors: list(z.strictObject({ path: text, code: text, message: text })),
    }),
  ),
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
