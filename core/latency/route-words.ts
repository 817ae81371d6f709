import { formatDecimal } from '../units'

/** A time, and whether some of it is unknown and comes on top. */
export interface KnownTime {
  readonly milliseconds: number
  readonly atLeast: boolean
}

/** The time of a route in words: what is certain where a part of it is unknown, and no figure where nothing is certain. */
export const routeTime = (time: KnownTime): string =>
  isUnknown(time) ? 'not known' : `${time.atLeast ? 'at least ' : ''}${formatDecimal(time.milliseconds, 2)} ms`

/** The same where room is short: a number with its doubt before it. */
export const routeFigure = (time: KnownTime): string =>
  isUnknown(time) ? '?' : `${time.atLeast ? '≥\u00a0' : ''}${formatDecimal(time.milliseconds, 2)}`

const isUnknown = ({ milliseconds, atLeast }: KnownTime) => atLeast && milliseconds === 0
