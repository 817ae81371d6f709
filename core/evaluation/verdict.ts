import type { Contribution, Point } from '../chain/cascade'
import type { NoiseName } from '../gear/two-port'
import type { Recommendation } from '../latency/recommend'
import { routeTime } from '../latency/route-words'
import type { Session } from '../session'
import type { Strip } from '../model'
import { isBus } from '../model'
import { isDigitalMicrophone, outputAt, isInterface, isMicrophone, isSoundSource } from '../gear'
import { formatDecimal } from '../units'
import { chanceOver } from '../uncertainty/chance'
import type { UncertainStrip } from '../uncertainty/uncertainty'
import type { StripEvaluation } from './evaluate-session'
import { formatChance, giveOrTake } from './how-sure-words'

/** One statement of the verdict: the answer in a few words, and what stands behind it. */
export interface Statement {
  headline: string
  detail: string
  /** The answer alone, for where all three stand in one line. */
  short: string
}
export interface Verdict {
  headroom: Statement
  floor: Statement
  latency: Statement
}

/** Noises as they are called in a sentence. */
export const noiseWords: Record<NoiseName, string> = {
  'room': 'room',
  'self-noise': 'microphone',
  'thermal': 'thermal noise of the source',
  'source': 'source',
  'booster': 'inline preamp',
  'preamp': 'preamp',
  'output-stage': 'output stage',
  'link': 'link',
  'converter': 'converter',
  'word-length': 'file’s bit depth',
}

/**
 * The three answers about a strip, in plain words with numbers; what is recommended to listen by is said where it differs.
 * @param sure how well the figures are known, once that is worked out: each gets its ± then
 */
export function verdict(
  session: Session,
  strip: Strip,
  evaluated: StripEvaluation,
  recommended: Recommendation | null = null,
  sure: UncertainStrip | null = null,
): Verdict {
  return {
    headroom: headroomStatement(session, strip, evaluated, sure),
    floor: floorStatement(evaluated, sure),
    latency: isBus(strip)
      ? busStatement(session, evaluated, sure)
      : latencyStatement(session, strip, evaluated, recommended, sure),
  }
}

function headroomStatement(
  session: Session,
  strip: Strip,
  { points, tightest, sum }: StripEvaluation,
  sure: UncertainStrip | null,
): Statement {
  const point = points.find((each) => each.stage === tightest?.stage)
  if (isBus(strip) && points.length === 0)
    return { headline: 'Nothing feeds this bus', detail: 'give a strip a send to it', short: 'nothing feeds it' }
  if (!tightest || !point || point.ceiling === null)
    return {
      headline: 'No stage with a known limit',
      detail: 'give the microphone’s or the input’s',
      short: 'no known limit',
    }
  const meets = sum !== null && tightest.stage === strip.stages[0]?.id
  const place = `${meets ? 'where the strips meet, at ' : ''}${placeOf(session, strip, tightest.stage)}`
  const afterSurge = point.ceiling - point.surgePeak
  const known = sure?.points.find((each) => each.stage === tightest.stage)?.headroom
  const give = known ? plusMinus(known.u, 1) : ''
  const chance = sure ? `; ${formatChance(chanceOfClipping(points, sure))} risk of clipping` : ''
  if (tightest.headroom < 0)
    return {
      headline: `${formatDecimal(-tightest.headroom, 1)}${give} dB too loud`,
      short: `${formatDecimal(-tightest.headroom, 1)} dB too loud`,
      detail: `it clips ${meets ? '' : 'at '}${place} before any surge`,
    }
  return {
    headline: `Headroom ${formatDecimal(tightest.headroom, 1)}${give} dB`,
    short: `headroom ${formatDecimal(tightest.headroom, 1)} dB`,
    detail:
      afterSurge < 0
        ? `at ${place}; the surge goes ${formatDecimal(-afterSurge, 1)} dB over${chance}`
        : `${meets ? '' : 'at '}${place}; ${formatDecimal(afterSurge, 1)} dB after the surge${chance}`,
  }
}

/** The ±: twice the standard uncertainty; nothing where it would read 0. */
const plusMinus = (u: number | undefined, digits: number): string =>
  u === undefined || 2 * u < 0.5 * 10 ** -digits ? '' : ` ${giveOrTake(u, digits)}`

/** That a peak with the surge passes some ceiling, as the gains stand now. */
function chanceOfClipping(points: readonly Point[], sure: UncertainStrip): number {
  return Math.max(
    0,
    ...points.map(({ stage, surgeHeadroom }) => {
      const u = sure.points.find((each) => each.stage === stage)?.surgeHeadroom?.u
      return surgeHeadroom === null || u === undefined ? 0 : chanceOver(surgeHeadroom, u)
    }),
  )
}

/** A stage in a sentence. Sound overloads the capsule, not the source. */
function placeOf(session: Session, strip: Strip, stageId: string): string {
  const stage = strip.stages.find((each) => each.id === stageId)
  const gear = session.gear.find((each) => each.id === stage?.gear)
  if (isInterface(gear) && !outputAt(gear, stage?.port)) return `input ${stage?.port ?? ''} of ${gear.name}`
  const isCapsule = isSoundSource(gear) || (isMicrophone(gear) && !isDigitalMicrophone(gear))
  return isCapsule ? 'the capsule' : (gear?.name ?? 'a stage')
}

function floorStatement({ noise, points }: StripEvaluation, sure: UncertainStrip | null): Statement {
  const greatest = greatestNoise(noise)
  const open = noise.filter(({ name }) => name === 'room').length
  const end = points.at(-1)
  if (!greatest || !end)
    return { headline: 'No noise is known', detail: 'give the room’s and the gear’s', short: 'no noise known' }
  return {
    headline: `Noise floor ${formatDecimal(end.noise, 1)} ${UNITS[end.unit]}(A)`,
    short: `floor ${formatDecimal(end.noise, 1)} ${UNITS[end.unit]}(A)`,
    detail: `the ${noiseWords[greatest.name]} makes ${formatDecimal(100 * greatest.share, 0)} % of it; SNR ${formatDecimal(end.snr, 1)}${plusMinus(sure?.points.at(-1)?.snr?.u, 1)} dB${open > 1 ? `, ${open} open microphones` : ''}`,
  }
}

const UNITS = { dBSPL: 'dB SPL', dBu: 'dBu', dBFS: 'dBFS' } as const

/** The kind of noise that makes most of it: on a bus several strips bring the same kind. */
export function greatestNoise(noise: readonly Contribution[]): Pick<Contribution, 'name' | 'share'> | undefined {
  const shares = new Map<NoiseName, number>()
  for (const { name, share } of noise) shares.set(name, (shares.get(name) ?? 0) + share)
  return [...shares].map(([name, share]) => ({ name, share })).sort((a, b) => b.share - a.share)[0]
}

/** What a bus is for: a stream’s loudness, the level at the listener, or who brings most. */
function busStatement(
  session: Session,
  { points, sum, stream, feedback }: StripEvaluation,
  sure: UncertainStrip | null,
): Statement {
  const end = points.at(-1)
  if (!end || !sum)
    return { headline: 'No strips meet here', detail: 'nothing is known of its level', short: 'no strips' }
  if (stream)
    return {
      headline: `Stream ${formatDecimal(stream.loudness, 1)} ± ${formatDecimal(stream.give, 1)} LUFS`,
      short: `${formatDecimal(stream.loudness, 1)} LUFS`,
      detail: `wanted ${formatDecimal(stream.wanted, 1)}; the limiter takes ${formatDecimal(stream.reduction.surge, 1)} dB off the surge`,
    }
  if (end.unit === 'dBSPL')
    return {
      headline: `${formatDecimal(end.average, 1)}${plusMinus(sure?.points.at(-1)?.average.u, 1)} dB SPL at the listener`,
      short: `${formatDecimal(end.average, 1)} dB SPL`,
      detail:
        feedback === null
          ? 'no microphone feeds it'
          : feedback.margin === null
            ? 'microphones feed it, their distance is not set'
            : `${formatDecimal(feedback.margin, 1)} dB gain before feedback`,
    }
  const [most] = sum.brought
  const name = session.strips.find(({ id }) => id === most?.strip)?.name ?? ''
  const meet = sum.brought.length === 1 ? 'One strip comes here' : `${sum.brought.length} strips meet here`
  return {
    headline: meet,
    short: `${sum.brought.length} ${sum.brought.length === 1 ? 'strip' : 'strips'}`,
    detail: `${name} brings most, ${formatDecimal(100 * (most?.share ?? 0), 0)} % of the average`,
  }
}

function latencyStatement(
  { system }: Session,
  strip: Strip,
  { latency }: StripEvaluation,
  recommended: Recommendation | null,
  sure: UncertainStrip | null,
): Statement {
  const heard = latency.find((each) => each.route === strip.monitor.route)
  const other = latency.find((each) => each.route !== strip.monitor.route)
  if (!heard)
    return {
      headline: 'No such monitoring route',
      short: 'no such route',
      detail: other ? `${ROUTES[other.route]}: ${routeTime(other)}` : 'the strip has no interface',
    }
  const asRecommended =
    !recommended ||
    (recommended.route === heard.route &&
      (recommended.route === 'direct' ||
        (recommended.bufferFrames === system.bufferFrames && recommended.sampleRate === system.sampleRate)))
  const rest = asRecommended
    ? other
      ? `; ${routeTime(other)} ${ROUTES[other.route]}`
      : ''
    : `; recommended: ${recommended.route === 'direct' ? 'direct' : `${recommended.bufferFrames} frames`}, ${routeTime(recommended)}`
  const own = sure?.latency.find((each) => each.route === heard.route)
  return {
    short: heard.atLeast ? routeTime(heard) : `${formatDecimal(heard.milliseconds, 2)} ms`,
    headline: heard.atLeast
      ? `Monitoring delay ${routeTime(heard)}`
      : `Monitoring delay ${formatDecimal(heard.milliseconds, 2)}${plusMinus(own?.u, 2)} ms`,
    detail: `${ROUTES[heard.route]}${rest}`,
  }
}

const ROUTES = { direct: 'direct', software: 'software' } as const
