import type { Session, Strip } from '../session'
import { withPart } from '../session'
import { formatDecimal, formatShort } from '../units'
import type { LoadModel } from './load'
import { loadAt, sustainable } from './load'
import { listeningKinds, performerLimit } from './performer'
import type { Route, RouteInputs } from './routes'
import { routes } from './routes'
import { routeTime } from './route-words'

/** What a strip's performer should listen by. */
export interface Recommendation {
  strip: string
  route: 'software' | 'direct'
  sampleRate: number
  bufferFrames: number
  milliseconds: number
  /** Converters and driver come on top, unknown. */
  atLeast: boolean
  reason: string
}

export interface Choices {
  readonly buffers: readonly number[]
  readonly rates: readonly number[]
  readonly load: LoadModel | null
}

const ms = (value: number) => `${formatDecimal(value, 2)} ms`
const kHz = (rate: number) => `${formatShort(rate / 1000)} kHz`

/**
 * The largest buffer under the performer's limit that the machine sustains; where there is none, direct monitoring; where
 * that is late too or not there, a higher rate with what it costs; else the least that can be had.
 */
export function recommend(
  session: Session,
  strip: Strip,
  inputs: RouteInputs,
  { buffers, rates, load }: Choices,
): Recommendation {
  const { system } = session
  const limit = performerLimit(strip.performer)
  const kind = strip.performer ? listeningKinds[strip.performer.listensTo].words : 'the performer'
  // The figure is the route's own, whatever stands on it: air, links, converters, plug-ins, a loudspeaker.
  const through = (rate: number, frames: number) =>
    routes({ ...inputs, system: withPart(system, { sampleRate: rate, bufferFrames: frames }) }).find(
      (each) => each.route === 'software',
    ) as Route
  const software = (rate: number, frames: number): number => through(rate, frames).milliseconds
  const sustains = (rate: number, frames: number) =>
    sustainable(system.trials ?? [], load ? loadAt(load, rate, frames) : undefined, rate, frames)
  const best = (rate: number) =>
    [...buffers]
      .sort((a, b) => b - a)
      .find((frames) => software(rate, frames) <= limit && sustains(rate, frames) !== false)
  const answer = (
    { route, milliseconds, atLeast }: Route,
    sampleRate: number,
    bufferFrames: number,
    reason: string,
  ): Recommendation => ({
    strip: strip.id,
    route,
    sampleRate,
    bufferFrames,
    milliseconds,
    atLeast,
    reason: atLeast ? `${reason} ${UNKNOWN}` : reason,
  })

  const direct = routes(inputs).find((each) => each.route === 'direct')
  const here = best(system.sampleRate)
  if (here !== undefined) {
    const route = through(system.sampleRate, here)
    const own = route.milliseconds
    const larger = [...buffers].filter((frames) => frames > here).sort((a, b) => a - b)[0]
    const known = sustains(system.sampleRate, here)
      ? ' that the machine sustains'
      : '; whether the machine sustains it is not known yet'
    const next =
      larger === undefined ? '' : `; ${larger} frames would be ${routeTime(through(system.sampleRate, larger))}`
    const sooner =
      direct && direct.milliseconds < own
        ? ` Direct would be ${direct.atLeast ? 'sooner' : routeTime(direct)}, without the host’s effects and mix: no need while ${route.atLeast ? 'the host’s' : routeTime(route)} goes unnoticed.`
        : ''
    return answer(
      route,
      system.sampleRate,
      here,
      `The largest buffer under the ${formatShort(limit)} ms of ${kind}${known}${next}.${sooner}`,
    )
  }
  const cause = `No buffer at ${kHz(system.sampleRate)} is both under ${formatShort(limit)} ms and sustained`
  /** The smallest buffer from one on that is not known to drop out; the largest where all are. */
  const sustainedFrom = (least: number) =>
    [...buffers]
      .sort((a, b) => a - b)
      .find((frames) => frames >= least && sustains(system.sampleRate, frames) !== false) ?? Math.max(...buffers)
  // Who listens direct does not hear the buffer: as it is set it may stay, unless it drops out.
  const bufferFor = ({ route }: Route) => sustainedFrom(route === 'direct' ? system.bufferFrames : 0)
  const higher = [...rates].sort((a, b) => a - b).find((rate) => rate > system.sampleRate && best(rate) !== undefined)
  const higherWords =
    higher === undefined
      ? ''
      : higherRate(higher, best(higher) as number, system.sampleRate, load, software(higher, best(higher) as number))
  if (direct && direct.milliseconds <= limit) {
    return answer(
      direct,
      system.sampleRate,
      bufferFor(direct),
      `${cause}: listen direct, ${direct.atLeast ? 'the soonest there is' : routeTime(direct)}; the buffer can then be as large as the machine likes.${strip.monitor.pluginFrames > 0 ? ' The plug-ins are not heard on the direct sound.' : ''}${higherWords && ` Or ${higherWords}`}`,
    )
  }
  if (higher !== undefined) {
    const frames = best(higher) as number
    return answer(
      through(higher, frames),
      higher,
      frames,
      `${cause}, and there is no direct route in time: ${higherWords}`,
    )
  }
  const host = through(system.sampleRate, sustainedFrom(0))
  const least = direct && direct.milliseconds < host.milliseconds ? direct : host
  return answer(
    least,
    system.sampleRate,
    bufferFor(least),
    `${cause}: ${routeTime(least)} is the least that can be had here. Take plug-ins off, go closer, or let the performer hear less of this source.`,
  )
}

/** Said with whatever is recommended for a unit that nothing is known of. */
const UNKNOWN =
  'The unit’s converters and driver come on top and are not known: measure the round trip before relying on it.'

function higherRate(rate: number, frames: number, now: number, load: LoadModel | null, milliseconds: number): string {
  const costs = [
    `${formatDecimal(rate / now, 1)} times the disk`,
    ...(load ? [`${formatDecimal(loadAt(load, rate, frames), 0)} % load`] : []),
  ]
  return `${kHz(rate)} with ${frames} frames, ${ms(milliseconds)}, at the cost of ${costs.join(' and ')}.`
}
