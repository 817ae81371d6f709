import type { Point } from '../chain/cascade'
import type { GainControl } from '../chain/gain-control'
import type { DynamicAim } from '../chain/dynamics'
import { dynamicAim, hasDynamics } from '../chain/dynamics'
import type { ReadingPlace } from '../chain/target-window'
import { aimError, windowError } from '../chain/target-window'
import type { TargetWindow } from '../model'
import type { TriedGains } from './tried-gains'

/**
 * A stretch of a strip that ends where a level is given: at a processor with a threshold – whose level stays where it was set, or is
 * what brings it to work where it is not set up yet –, at a stage driven on purpose, or where the target is read.
 */
export interface Stretch {
  readonly gains: readonly GainControl[]
  readonly faders: readonly GainControl[]
  /** The stage whose level is held; `null` where the target is read. */
  readonly held: string | null
  /** What that stage is to get where it is not set up yet; `null` where its level stays, and where the target is read. */
  readonly aim: DynamicAim | null
  /** How far its end is over what is wanted there, dB. */
  readonly error: (points: readonly Point[]) => number
  /** How far it is outside of what will do: positive over, negative under. */
  readonly misses: (points: readonly Point[]) => number
}

/** A held level that is missed by less needs no fader, dB. */
const NEAR = 0.5

/** The stretches of a strip in the order of the signal, each with the gains in it that may be moved. */
export function stretchesOf(
  tried: TriedGains,
  place: ReadingPlace,
  window: TargetWindow,
  now: readonly Point[],
): Stretch[] {
  const holds = tried.stages.flatMap((stage, i) =>
    i > 0 && i <= place.index && (stage.driven || hasDynamics(stage)) ? [i] : [],
  )
  const movable = movableOf(tried, place)
  const within = (from: number, to: number) => {
    const own = movable.filter((each) => tried.indexOf(each) >= from && tried.indexOf(each) < to)
    return { gains: own.filter((each) => !each.isFader), faders: own.filter((each) => each.isFader) }
  }
  const held = holds.map((hold, k): Stretch => {
    const aim = tried.stages[hold]?.driven ? null : dynamicAim(tried.stages, now, hold)
    const into = (points: readonly Point[]) => {
      const before = points[hold - 1]
      return before ? (aim ? aim.now(before) : before.average) : 0
    }
    const wanted = aim ? aim.level : into(now)
    const error = (points: readonly Point[]) => into(points) - wanted
    const misses = (points: readonly Point[]) => (Math.abs(error(points)) < NEAR ? 0 : error(points))
    return { ...within(holds[k - 1] ?? 0, hold), held: tried.stages[hold]?.id ?? null, aim, error, misses }
  })
  const at = (points: readonly Point[]) => points[place.index] as Point
  return [
    ...held,
    {
      ...within(holds.at(-1) ?? 0, Infinity),
      held: null,
      aim: null,
      error: (points) => aimError(at(points), place, window),
      misses: (points) => windowError(at(points), place, window),
    },
  ]
}

/**
 * The gains that the planner moves: those in analogue up to where the target is read, not those of a stage that is driven
 * on purpose. In the host the order of gains changes no noise, so there only the last is moved.
 */
function movableOf(tried: TriedGains, place: ReadingPlace): GainControl[] {
  const free = tried.controls.filter(
    (each) =>
      !each.locked &&
      tried.indexOf(each) <= place.index &&
      !tried.stages[tried.indexOf(each)]?.driven &&
      // PFL shows what comes before the channel’s fader: that is for the mix.
      !(place.meter === 'pfl' && each.isFader && tried.indexOf(each) === place.index),
  )
  if (place.meter !== 'file') return free.filter((each) => each.domain === 'analogue')
  const last = free.findLast((each) => !each.isSystemSlider)
  // A fader is the only thing to turn there, so it is turned as a gain is.
  return last ? [last] : []
}
