import { halfRange } from '../numeric/statistics'
import type { AudioInterface } from '../gear'
import type { RoundTrip, System } from '../model'
import { latencySpecs } from '../gear'
import type { FitResult } from './round-trip-fit'
import { fitRoundTrips } from './round-trip-fit'

/** A round trip of the unit and its driver alone, without air, links and plug-ins. */
export interface RoundTripEstimate {
  milliseconds: number
  source: 'model' | 'fitted' | 'measured'
  /** Half-width of 95 %, or half the range of several measurements of the cell, ms. */
  spread?: number
  /** Standard uncertainty of a measured or fitted one, ms. */
  u?: number
}

/** Buffers both ways that the driver holds, as printed; one each way where nothing is. */
export const heldBuffers = (unit: AudioInterface): number =>
  (unit.latency?.buffersIn ?? latencySpecs.buffersIn.initial) +
  (unit.latency?.buffersOut ?? latencySpecs.buffersOut.initial)

/** The engine period of a shared driver, once on each way. */
export const sharedTime = ({ driver, sharedPeriod }: Pick<System, 'driver' | 'sharedPeriod'>): number =>
  driver === 'shared' ? 2 * (sharedPeriod ?? 0) : 0

/** (b·N + frames)/fs + fixed. 128 at 48 kHz, 1 + 1, 88 frames, 0.5 ms: 7.667 ms; 512 at 44.1 kHz: 25.715 ms. */
export function modelRoundTrip(
  unit: AudioInterface,
  system: Pick<System, 'driver' | 'sharedPeriod'>,
  sampleRate: number,
  bufferFrames: number,
): number {
  const { converterIn = 0, converterOut = 0, safetyIn = 0, safetyOut = 0, fixed = 0 } = unit.latency ?? {}
  return (
    (1000 * (heldBuffers(unit) * bufferFrames + converterIn + converterOut + safetyIn + safetyOut)) / sampleRate +
    fixed +
    sharedTime(system)
  )
}

/** Measurements of one unit: those that say so, and those that say nothing. */
export const roundTripsOf = (system: Pick<System, 'roundTrips'>, unit: { id: string }): RoundTrip[] =>
  (system.roundTrips ?? []).filter((each) => each.unit === undefined || each.unit === unit.id)

const known = new WeakMap<readonly RoundTrip[], Map<string, FitResult>>()

/** The fit of a unit's measurements; worked out once for one list, which is replaced, never changed. */
export function fitOfUnit(system: Pick<System, 'roundTrips'>, unit: AudioInterface): FitResult {
  const list = system.roundTrips ?? NONE
  const fits = known.get(list) ?? new Map<string, FitResult>()
  known.set(list, fits)
  const key = `${unit.id} ${heldBuffers(unit)}`
  const fit = fits.get(key) ?? fitRoundTrips(roundTripsOf(system, unit), heldBuffers(unit))
  fits.set(key, fit)
  return fit
}

/** Measurements of one cell of a unit. */
export const measuredAt = (
  system: Pick<System, 'roundTrips'>,
  unit: { id: string },
  sampleRate: number,
  bufferFrames: number,
): RoundTrip[] =>
  roundTripsOf(system, unit).filter((each) => each.sampleRate === sampleRate && each.bufferFrames === bufferFrames)

/** What is best known of a cell: its own measurement, else the fit of the others, else the printed model. */
export function estimateRoundTrip(
  unit: AudioInterface,
  system: System,
  sampleRate: number,
  bufferFrames: number,
): RoundTripEstimate {
  const own = measuredAt(system, unit, sampleRate, bufferFrames).map((each) => each.milliseconds)
  if (own.length > 0) {
    const milliseconds = own.reduce((sum, each) => sum + each, 0) / own.length
    return {
      milliseconds,
      source: 'measured',
      ...(own.length > 1 && { spread: halfRange(own), u: halfRange(own) / Math.sqrt(3) }),
    }
  }
  const { fit } = fitOfUnit(system, unit)
  if (fit) {
    const { milliseconds, spread, u } = fit.predict(sampleRate, bufferFrames)
    return { milliseconds, source: 'fitted', ...(spread !== null && { spread }), ...(u !== null && { u }) }
  }
  return { milliseconds: modelRoundTrip(unit, system, sampleRate, bufferFrames), source: 'model' }
}
const NONE: readonly RoundTrip[] = []
