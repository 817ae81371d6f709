import type { AudioInterface, RoundTrip, System } from '../session'
import { latencySpecs } from '../session'
import type { FitResult } from './round-trip-fit'
import { fitRoundTrips } from './round-trip-fit'

/** A round trip of the unit and its driver alone, without air, links and plug-ins. */
export interface RoundTripEstimate {
  milliseconds: number
  source: 'model' | 'fitted' | 'measured'
  /** Half-width of 95 %, or half the range of several measurements of the cell, ms. */
  spread?: number
}

/** Buffers both ways that the driver holds, as printed; one each way where nothing is. */
export const heldBuffers = (unit: AudioInterface): number =>
  (unit.latency?.buffersIn ?? latencySpecs.buffersIn.initial) + (unit.latency?.buffersOut ?? latencySpecs.buffersOut.initial)

/** The engine period of a shared driver, once on each way. */
export const sharedTime = ({ driver, sharedPeriod }: Pick<System, 'driver' | 'sharedPeriod'>): number => (driver === 'shared' ? 2 * (sharedPeriod ?? 0) : 0)

/** (b·N + frames)/fs + fixed. 128 at 48 kHz, 1 + 1, 88 frames, 0.5 ms: 7.667 ms; 512 at 44.1 kHz: 25.715 ms. */
export function modelRoundTrip(unit: AudioInterface, system: Pick<System, 'driver' | 'sharedPeriod'>, sampleRate: number, bufferFrames: number): number {
  const { converterIn = 0, converterOut = 0, safetyIn = 0, safetyOut = 0, fixed = 0 } = unit.latency ?? {}
  return (1000 * (heldBuffers(unit) * bufferFrames + converterIn + converterOut + safetyIn + safetyOut)) / sampleRate + fixed + sharedTime(system)
}

const known = new WeakMap<readonly RoundTrip[], Map<number, FitResult>>()

/** The fit of a session's measurements; worked out once for one list, which is replaced, never changed. */
export function fitOfSession(roundTrips: readonly RoundTrip[], held: number): FitResult {
  const fits = known.get(roundTrips) ?? new Map<number, FitResult>()
  known.set(roundTrips, fits)
  const fit = fits.get(held) ?? fitRoundTrips(roundTrips, held)
  fits.set(held, fit)
  return fit
}

/** Measurements of one cell. */
export const measuredAt = (roundTrips: readonly RoundTrip[], sampleRate: number, bufferFrames: number): RoundTrip[] =>
  roundTrips.filter((each) => each.sampleRate === sampleRate && each.bufferFrames === bufferFrames)

/** What is best known of a cell: its own measurement, else the fit of the others, else the printed model. */
export function estimateRoundTrip(unit: AudioInterface, system: System, sampleRate: number, bufferFrames: number): RoundTripEstimate {
  const roundTrips = system.roundTrips ?? NONE
  const own = measuredAt(roundTrips, sampleRate, bufferFrames).map((each) => each.milliseconds)
  if (own.length > 0) {
    const milliseconds = own.reduce((sum, each) => sum + each, 0) / own.length
    return { milliseconds, source: 'measured', ...(own.length > 1 && { spread: (Math.max(...own) - Math.min(...own)) / 2 }) }
  }
  const { fit } = fitOfSession(roundTrips, heldBuffers(unit))
  if (fit) {
    const { milliseconds, spread } = fit.predict(sampleRate, bufferFrames)
    return { milliseconds, source: 'fitted', ...(spread !== null && { spread }) }
  }
  return { milliseconds: modelRoundTrip(unit, system, sampleRate, bufferFrames), source: 'model' }
}
const NONE: readonly RoundTrip[] = []
