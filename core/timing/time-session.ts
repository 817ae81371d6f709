import { stagesOf } from '../resolved/resolve-session'
import { timingAxes } from '../latency/axes'
import type { LoadModel } from '../latency/cpu-load'
import { loadAt, loadModel, sustainable } from '../latency/cpu-load'
import type { Recommendation } from '../latency/recommend'
import { recommendationFor } from '../latency/recommend'
import { estimateRoundTrip, fitOfUnit, measuredAt } from '../latency/round-trip'
import type { RoundTripFit } from '../latency/round-trip-fit'
import { routes } from '../latency/routes'
import type { AudioInterface } from '../gear'
import { isDigitalInput, isInterface } from '../gear'
import type { Session } from '../session'
import { withPart } from '../edits'
import { frames } from '../units'
import type { TimingFinding } from './findings'
import { findingsOf } from './findings'

/** One setting of rate and buffer, and what is known of it. */
export interface TimingCell {
  sampleRate: number
  bufferFrames: number
  bufferMs: number
  softwareMs: number
  /** No latency of the unit is printed and none was measured: converters and driver come on top of `softwareMs`. */
  atLeast: boolean
  /** `null` where the unit has none. */
  directMs: number | null
  source: 'model' | 'fitted' | 'measured'
  spread?: number
  loadPercent?: number
  /** Read off the meter in this cell, or worked out from other cells. */
  loadSource?: 'measured' | 'fitted'
  /** Where the meter was read at one buffer size alone. */
  loadLimit?: 'at least' | 'at most'
  sustainable?: boolean
}

export interface Timing {
  matrix: TimingCell[]
  fit?: Omit<RoundTripFit, 'predict'>
  loadModel?: LoadModel
  recommendations: Recommendation[]
  /**
   * What to enter as the host's recording offset: measured − reported, at the set rate and buffer. Positive: recordings
   * land that much too late, and the host has to shift them earlier.
   */
  overdubOffsetFrames?: number
  overdubOffsetMs?: number
  findings: TimingFinding[]
}

/** The unit whose driver the host talks to: the last interface of the first strip that has one. */
export function hostUnit(session: Session): AudioInterface | null {
  for (const strip of session.strips) {
    const stage = stagesOf(session, strip).findLast((each) => isInterface(each) || isDigitalInput(each))
    if (isInterface(stage) || isDigitalInput(stage)) return stage.gear
  }
  return null
}

/** Every rate and buffer, what each strip should listen by, and what is wrong with the clock, the measurements and the disk. */
export function timeSession(session: Session): Timing {
  const unit = hostUnit(session)
  if (!unit) return { matrix: [], recommendations: [], findings: findingsOf(session, null, null, []) }
  const { system } = session
  const { rates, buffers } = timingAxes(session, unit)
  const fitted = fitOfUnit(system, unit)
  const load = loadModel(system.loads ?? [])
  const offset = overdubOffset(session, unit)
  return {
    matrix: rates.flatMap((rate) => buffers.map((frames) => cellAt(session, unit, load, rate, frames))),
    ...(fitted.fit && { fit: plain(fitted.fit) }),
    ...(load && { loadModel: load }),
    recommendations: recommendations(session),
    ...(offset !== null && { overdubOffsetFrames: offset, overdubOffsetMs: (1000 * offset) / system.sampleRate }),
    findings: findingsOf(session, unit, load, [
      ...fitted.remarks.map((message) => ({ message })),
      ...fitted.outliers.map((outlier) => ({ outlier })),
    ]),
  }
}

const plain = ({ predict: _, ...fit }: RoundTripFit) => fit

function cellAt(
  session: Session,
  unit: AudioInterface,
  load: LoadModel | null,
  sampleRate: number,
  bufferFrames: number,
): TimingCell {
  const { system, room } = session
  const { milliseconds, source, spread } = estimateRoundTrip(unit, system, sampleRate, bufferFrames)
  const typed = loadsAt(session, sampleRate, bufferFrames)
  const known = typed === undefined ? load && loadAt(load, sampleRate, bufferFrames) : { percent: typed }
  const kept = sustainable(system.trials ?? [], known ?? undefined, sampleRate, bufferFrames)
  const direct = routes({
    unit,
    converter: unit,
    digitalIn: false,
    system: withPart(system, { sampleRate }),
    room,
    distance: undefined,
    links: [],
    monitor: { route: 'direct', pluginFrames: frames(0) },
  }).find((each) => each.route === 'direct')
  return {
    sampleRate,
    bufferFrames,
    bufferMs: (1000 * bufferFrames) / sampleRate,
    softwareMs: milliseconds,
    atLeast: source === 'model' && !unit.latency,
    directMs: direct?.milliseconds ?? null,
    source,
    ...(spread !== undefined && { spread }),
    ...(known && {
      loadPercent: known.percent,
      loadSource: typed === undefined ? 'fitted' : 'measured',
      ...(known.limit && { loadLimit: known.limit }),
    }),
    ...(kept !== undefined && { sustainable: kept }),
  }
}

/** What the meter was read at in a cell, the mean of several readings; what was typed is shown as it was typed. */
function loadsAt({ system }: Session, sampleRate: number, bufferFrames: number): number | undefined {
  const own = (system.loads ?? []).filter(
    (each) => each.sampleRate === sampleRate && each.bufferFrames === bufferFrames,
  )
  return own.length === 0 ? undefined : own.reduce((sum, each) => sum + each.percent, 0) / own.length
}

function recommendations(session: Session): Recommendation[] {
  return session.strips.flatMap((strip) => recommendationFor(session, strip) ?? [])
}

/** Measured less reported, in frames, at the set rate and buffer; `null` where one of the two is missing. */
function overdubOffset({ system }: Session, unit: AudioInterface): number | null {
  const { sampleRate, bufferFrames } = system
  const measured = measuredAt(system, unit, sampleRate, bufferFrames)
  const reported = system.reported?.findLast(
    (each) => each.sampleRate === sampleRate && each.bufferFrames === bufferFrames,
  )
  if (measured.length === 0 || !reported) return null
  const mean = measured.reduce((sum, each) => sum + each.milliseconds, 0) / measured.length
  return Math.round(((mean - reported.inMs - reported.outMs) * sampleRate) / 1000)
}
