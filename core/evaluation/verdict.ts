import type { NoiseName } from '../chain/two-port'
import type { Recommendation } from '../latency/recommend'
import type { Session, Strip } from '../session'
import { formatDecimal } from '../units'
import type { StripEvaluation } from './evaluate-session'

/** One statement of the verdict: the answer in a few words, and what stands behind it. */
export interface Statement {
  headline: string
  detail: string
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
  'thermal': 'source’s impedance',
  'source': 'source',
  'booster': 'inline preamp',
  'preamp': 'preamp',
  'output-stage': 'output stage',
  'link': 'link',
  'converter': 'converter',
  'word-length': 'file’s bit depth',
}

/** The three answers about a strip, in plain words with numbers; what is recommended to listen by is said where it differs. */
export function verdict(
  session: Session,
  strip: Strip,
  evaluated: StripEvaluation,
  recommended: Recommendation | null = null,
): Verdict {
  return {
    headroom: headroomStatement(session, strip, evaluated),
    floor: floorStatement(evaluated),
    latency: latencyStatement(session, strip, evaluated, recommended),
  }
}

function headroomStatement(session: Session, strip: Strip, { points, tightest }: StripEvaluation): Statement {
  const point = points.find((each) => each.stage === tightest?.stage)
  if (!tightest || !point || point.ceiling === null)
    return { headline: 'No stage with a known limit', detail: 'give the microphone’s or the input’s' }
  const place = placeOf(session, strip, tightest.stage)
  const afterSurge = point.ceiling - point.surgePeak
  if (tightest.headroom < 0)
    return {
      headline: `${formatDecimal(-tightest.headroom, 1)} dB too loud`,
      detail: `it clips at ${place} before any surge`,
    }
  return {
    headline: `${formatDecimal(tightest.headroom, 1)} dB before it clips`,
    detail:
      afterSurge < 0
        ? `at ${place}; the surge goes ${formatDecimal(-afterSurge, 1)} dB over`
        : `at ${place}; ${formatDecimal(afterSurge, 1)} dB with the surge`,
  }
}

/** A stage in a sentence. Sound overloads the capsule, not the source. */
function placeOf(session: Session, strip: Strip, stageId: string): string {
  const stage = strip.stages.find((each) => each.id === stageId)
  const gear = session.gear.find((each) => each.id === stage?.gear)
  if (gear?.kind === 'interface') return `input ${stage?.port ?? ''} of ${gear.name}`
  return gear?.kind === 'sound-source' || gear?.kind === 'microphone' ? 'the capsule' : (gear?.name ?? 'a stage')
}

function floorStatement({ noise, points }: StripEvaluation): Statement {
  const greatest = noise[0]
  const end = points.at(-1)
  if (!greatest || !end) return { headline: 'No noise is known', detail: 'give the room’s and the gear’s' }
  return {
    headline: `The ${noiseWords[greatest.name]} sets the floor, ${formatDecimal(100 * greatest.share, 0)} %`,
    detail: `${formatDecimal(end.snr, 1)} dB under the average, at ${formatDecimal(end.noise, 1)} ${end.unit}(A)`,
  }
}

function latencyStatement(
  { system }: Session,
  strip: Strip,
  { latency }: StripEvaluation,
  recommended: Recommendation | null,
): Statement {
  const heard = latency.find((each) => each.route === strip.monitor.route)
  const other = latency.find((each) => each.route !== strip.monitor.route)
  if (!heard)
    return {
      headline: 'No such monitoring route',
      detail: other
        ? `${ROUTES[other.route]}: ${formatDecimal(other.milliseconds, 2)} ms`
        : 'the strip has no interface',
    }
  const asRecommended =
    !recommended ||
    (recommended.route === heard.route &&
      (recommended.route === 'direct' ||
        (recommended.bufferFrames === system.bufferFrames && recommended.sampleRate === system.sampleRate)))
  const rest = asRecommended
    ? other
      ? `; ${formatDecimal(other.milliseconds, 2)} ms ${ROUTES[other.route]}`
      : ''
    : `; recommended: ${recommended.route === 'direct' ? 'direct' : `${recommended.bufferFrames} frames`}, ${formatDecimal(recommended.milliseconds, 2)} ms`
  return {
    headline: `${formatDecimal(heard.milliseconds, 2)} ms to the performer’s ears`,
    detail: `${ROUTES[heard.route]}${rest}`,
  }
}

const ROUTES = { direct: 'direct from the interface', software: 'through the host' } as const
