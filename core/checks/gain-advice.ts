import type { Change } from '../edits'
import { db } from '../units'
import type { Point } from '../chain/cascade'
import { hasDynamics } from '../chain/dynamics'
import type { GainControl } from '../chain/gain-control'
import type { SettableGain } from '../chain/settable-gain'
import { gainAtTarget } from '../chain/settable-gain'
import type { ReadingPlace } from '../chain/target-window'
import { aimError } from '../chain/target-window'
import { indexOf, levelControls, setting } from './controls'
import { tried } from './trial'
import type { StripView } from './view'

/** What the gain before the meter would be set to for the target alone. */
export interface Advice extends SettableGain {
  control: GainControl
  /** Wanted less what the range gives, dB; positive where more is wanted, negative where less. */
  short: number
}

/** Of several gains the last one that reaches by itself; where none does, the last. */
export function adviceFor(view: StripView, place: ReadingPlace, point: Point): Advice | null {
  const all = levelControls(view).map((control) => adviceAt(control, view, place, point))
  return all.find(({ limit }) => limit === null) ?? all[0] ?? null
}

function adviceAt(control: GainControl, view: StripView, place: ReadingPlace, point: Point): Advice {
  const { low, high, aim } = view.target
  // A target that reads averages must not take the peaks over the top.
  const room = point.headroom ?? Infinity
  const wanted = isCurvedBetween(view, control, place)
    ? solvedGain(view, control, place)
    : Math.min(control.value - aimError(point, place, view.target), control.value + room)
  const settable = gainAtTarget(control.range, wanted, {
    under: aim - low,
    over: Math.min(high - aim, control.value + room - wanted),
  })
  const short = settable.limit === null ? 0 : wanted - settable.gain
  return { control, short, ...settable }
}

/** Whether a curve stands between a gain and the meter: there a decibel is not a decibel. */
const isCurvedBetween = (view: StripView, control: GainControl, place: ReadingPlace): boolean =>
  view.stages.some((stage, i) => i > indexOf(view, control) && i <= place.index && hasDynamics(stage))

/** The gain for the target, solved by evaluating; beyond its range by what is missing at its end. */
function solvedGain(view: StripView, control: GainControl, place: ReadingPlace): number {
  const { gainMin, gainMax } = control.range
  const over = (gain: number): number => {
    const { points = [], error = 0 } = tried(view, [setting(view, control, db(gain))]) ?? {}
    return Math.max(error ?? 0, -(points[place.index]?.headroom ?? Infinity))
  }
  const [atLeast, atMost] = [over(gainMin), over(gainMax)]
  if (atLeast > 0) return gainMin - atLeast
  if (atMost < 0) return gainMax - atMost
  let [low, high] = [gainMin, gainMax]
  while (high - low > 0.005) {
    const middle = (low + high) / 2
    if (over(middle) > 0) high = middle
    else low = middle
  }
  return low
}

/** Changes, and the gain set again to what the target then wants, solved by evaluating. */
export function withGainSet(view: StripView, changes: Change[], control: GainControl | undefined): Change[] {
  if (!control) return changes
  const { low, high, aim } = view.target
  let gain = control.value
  // Through a curve the first step falls short: what is left is added.
  for (let round = 0; round < ROUNDS; round++) {
    const error = tried(view, [...changes, setting(view, control, db(gain))])?.error
    if (error == null || Math.abs(error) < 0.005) break
    gain = Math.min(control.range.gainMax, Math.max(control.range.gainMin, gain - error))
  }
  const { gain: to } = gainAtTarget(control.range, gain, { under: aim - low, over: high - aim })
  return [...changes, setting(view, control, to)]
}
const ROUNDS = 6
