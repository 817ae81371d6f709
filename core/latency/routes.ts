import type { AudioInterface, InterfaceLatency } from '../gear'
import type { Monitor, Room, System } from '../model'
import { latencySpecs } from '../gear'
import { roomInForce } from '../model'
import type { Frames, Metres, Milliseconds } from '../units'
import { DEFAULT_TEMPERATURE, airTime, frames, framesToMilliseconds, milliseconds } from '../units'
import { estimateRoundTrip, modelRoundTrip, sharedTime } from './round-trip'

export type RouteName = 'direct' | 'software'
export type RoutePartName =
  | 'air'
  | 'link'
  | 'converter-in'
  | 'safety-in'
  | 'buffer-in'
  | 'plug-ins'
  | 'buffer-out'
  | 'safety-out'
  | 'converter-out'
  | 'fixed'
  | 'shared-engine'
  | 'measured-difference'
  | 'air-out'

export interface RoutePart {
  name: RoutePartName
  milliseconds: Milliseconds
}

/** A way from the source to the performer's ear, with what each part of it takes. */
export interface Route {
  route: RouteName
  milliseconds: Milliseconds
  /** A unit on the way prints no latency, and no round trip was measured: its converters and driver come on top, unknown. */
  atLeast: boolean
  parts: RoutePart[]
}

/** What the routes of a strip depend on. */
export interface RouteInputs {
  /** The unit whose driver the host talks to. */
  readonly unit: AudioInterface
  /** The unit whose input converter the signal passes; another one where a digital link lies between. */
  readonly converter: AudioInterface | null
  readonly system: System
  readonly room: Room
  readonly monitor: Monitor
  /** Whether it takes the signal in numbers, from another unit: then it can only be heard through its D/A converter. */
  readonly digitalIn: boolean
  /** From the source to the capsule, where there is one. */
  readonly distance: Metres | undefined
  /** What each link on the way takes. */
  readonly links: readonly Milliseconds[]
}

/** A unit that prints no latency: one buffer each way is certain, the rest unknown. */
const UNPRINTED: InterfaceLatency = {
  converterIn: frames(0),
  converterOut: frames(0),
  safetyIn: frames(0),
  safetyOut: frames(0),
  buffersIn: latencySpecs.buffersIn.initial,
  buffersOut: latencySpecs.buffersOut.initial,
  fixed: milliseconds(0),
}

/**
 * The routes that a strip's performer can listen by.
 *
 * Software: converter and driver margin in, input buffers, plug-ins, output buffers, driver margin and converter out,
 * over the sample rate, plus what is fixed. 128 frames at 48 kHz, 1 + 1 buffers, 88 frames, 0.5 ms: 7.667 ms.
 * Direct: the two converters through the unit's digital mixer, nothing where the unit mixes in analogue, and no such
 * route where it has none.
 */
export function routes(inputs: RouteInputs): Route[] {
  const direct = directParts(inputs)
  const software = softwareParts(inputs)
  const isPrinted = Boolean(inputs.unit.latency) && (!inputs.converter || Boolean(inputs.converter.latency))
  const isMeasured = software.some(({ name }) => name === 'measured-difference')
  const unconverted = isAnalogueThroughout(inputs)
  return [
    ...(direct ? [route('direct', direct, !isPrinted && !unconverted)] : []),
    route('software', software, !isPrinted && !isMeasured),
  ]
}

function route(name: RouteName, parts: RoutePart[], atLeast: boolean): Route {
  const sum = parts.reduce((total, part) => total + part.milliseconds, 0)
  return { route: name, milliseconds: milliseconds(sum), atLeast, parts }
}

/** Mixed in analogue in the unit itself: no converter is on the direct way. */
const isAnalogueThroughout = ({ unit, digitalIn }: RouteInputs) => unit.direct === 'analogue' && !digitalIn

function directParts(inputs: RouteInputs): RoutePart[] | null {
  const { unit } = inputs
  if (unit.direct === 'none') return null
  const { converterOut } = unit.latency ?? UNPRINTED
  const conversion = isAnalogueThroughout(inputs)
    ? []
    : [...conversionIn(inputs), inFrames('converter-out', converterOut, inputs)]
  return [...air(inputs), ...links(inputs), ...conversion, ...airOut(inputs)]
}

function softwareParts(inputs: RouteInputs): RoutePart[] {
  const { system, monitor, unit } = inputs
  const latency = unit.latency ?? UNPRINTED
  return [
    ...air(inputs),
    ...links(inputs),
    ...conversionIn(inputs),
    inFrames('safety-in', latency.safetyIn, inputs),
    inFrames('buffer-in', frames(latency.buffersIn * system.bufferFrames), inputs),
    inFrames('plug-ins', monitor.pluginFrames, inputs),
    inFrames('buffer-out', frames(latency.buffersOut * system.bufferFrames), inputs),
    inFrames('safety-out', latency.safetyOut, inputs),
    inFrames('converter-out', latency.converterOut, inputs),
    { name: 'fixed', milliseconds: latency.fixed },
    ...shared(inputs),
    ...measuredDifference(inputs),
    ...airOut(inputs),
  ]
}

const temperatureOf = (room: Room) => roomInForce(room).temperature ?? DEFAULT_TEMPERATURE

/** From the source to the capsule, the whole of it at any distance: 0.3 m 0.874 ms, 1 m 2.914, 2 m 5.827. */
function air({ distance, room }: RouteInputs): RoutePart[] {
  if (distance === undefined) return []
  return [{ name: 'air', milliseconds: airTime(distance, temperatureOf(room)) }]
}

/** From a loudspeaker to the performer. */
const airOut = ({ monitor, room }: RouteInputs): RoutePart[] =>
  monitor.speakerDistance
    ? [{ name: 'air-out', milliseconds: airTime(monitor.speakerDistance, temperatureOf(room)) }]
    : []

const shared = ({ system }: RouteInputs): RoutePart[] => {
  const time = sharedTime(system)
  return time > 0 ? [{ name: 'shared-engine', milliseconds: milliseconds(time) }] : []
}

/** What a measurement of this cell, or a fit of others, says beyond the printed model: the truth is in the sum. */
function measuredDifference({ unit, converter, system }: RouteInputs): RoutePart[] {
  if (!system.roundTrips?.length || converter !== unit) return []
  const { milliseconds: known, source } = estimateRoundTrip(unit, system, system.sampleRate, system.bufferFrames)
  return source === 'model'
    ? []
    : [
        {
          name: 'measured-difference',
          milliseconds: milliseconds(known - modelRoundTrip(unit, system, system.sampleRate, system.bufferFrames)),
        },
      ]
}

const links = (inputs: RouteInputs): RoutePart[] => inputs.links.map((each) => ({ name: 'link', milliseconds: each }))

const conversionIn = (inputs: RouteInputs): RoutePart[] =>
  inputs.converter ? [inFrames('converter-in', (inputs.converter.latency ?? UNPRINTED).converterIn, inputs)] : []

const inFrames = (name: RoutePartName, count: Frames, { system }: RouteInputs): RoutePart => ({
  name,
  milliseconds: framesToMilliseconds(count, system.sampleRate),
})
