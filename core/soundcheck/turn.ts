import { lastControl, stripControls } from '../chain/gain-control'
import { stagesOf } from '../resolved/resolve-session'
import { gainAtTarget } from '../chain/settable-gain'
import { readingPlace } from '../chain/target-window'
import type { Reading, TargetReading } from '../model'
import type { Session } from '../session'
import type { SettingChange } from '../edits'
import { applySettings } from '../edits'
import { isBus } from '../model'
import { db } from '../units'
import type { PointFigure } from '../uncertainty/figures'
import { placeOf } from '../uncertainty/figures'
import { readAt } from '../uncertainty/known-readings'
import type { SessionUncertainty } from '../uncertainty/uncertainty'
import { PerturbedEvaluations } from '../uncertainty/perturbed-evaluations'
import { windowOf } from '../uncertainty/window'

const FIGURE: Record<TargetReading, PointFigure> = { 'average': 'average', 'peak': 'peak', 'surge-peak': 'surgePeak' }

/** Nearer than that to a gain is that gain, dB. */
const SAME_GAIN_DB = 0.001

/** Through a curve the first step falls short: it is corrected so often. */
const ROUNDS = 5

/** What to turn, what the target’s meter shows then, and whether that is only a limit. */
export interface Turned {
  changes: SettingChange[]
  then: number
  atLeast: boolean
}

/**
 * What to turn on a strip by what its readings say: the gain that is turned last, to where what is believed there comes to the target’s
 * aim. Nothing where it lies inside its window, or where turning would not bring it nearer or would overdrive a stage.
 */
export function changesFor(
  { session, belief, believedEvaluations }: SessionUncertainty,
  reading: Reading,
): Turned | null {
  const strip = belief.strips.find(({ id }) => id === reading.strip)
  if (!strip || isBus(strip)) return null
  const stages = stagesOf(belief, strip)
  const window = windowOf(belief, strip, stages)
  const place = readingPlace(stages, window)
  const stage = place && stages[place.index]
  const point = stage ? believedEvaluations.cascadeOf(strip.id).points.findIndex((each) => each.stage === stage.id) : -1
  if (!place || point < 0) return null
  const at = placeOf(point, FIGURE[window.reads])
  const showsIn = (evaluations: PerturbedEvaluations) => (evaluations.numbersAt(strip.id)[at] as number) - place.zero
  const reads = showsIn(believedEvaluations)
  if (reads >= window.low && reads <= window.high) return null
  const control = lastControl(stripControls(stages.slice(0, place.index + 1)))
  if (!control || control.locked) return null
  const set = (gain: number): SettingChange[] => [
    { strip: strip.id, stage: control.stage, setting: control.setting, to: db(gain) },
  ]
  const withGain = (gain: number) => new PerturbedEvaluations(applySettings(belief, set(gain)))
  let wanted = control.value
  for (let round = 0, shows = reads; round < ROUNDS && Math.abs(window.aim - shows) > 0.005; round++) {
    wanted = Math.min(control.range.gainMax, Math.max(control.range.gainMin, wanted + window.aim - shows))
    shows = showsIn(withGain(wanted))
  }
  const { gain } = gainAtTarget(control.range, wanted, {
    under: window.aim - window.low,
    over: window.high - window.aim,
  })
  const after = withGain(gain)
  const then = showsIn(after)
  if (Math.abs(gain - control.value) < SAME_GAIN_DB || offBy(then, window) >= offBy(reads, window)) return null
  if (overdrives(strip.id, believedEvaluations, after)) return null
  // A limit promises no more than itself: what was read at least, turned as far.
  const limit = reading.limit === 'at-least' ? readAt(believedEvaluations, reading) : null
  return {
    changes: set(gain),
    then: limit ? then - Math.max(0, limit.now - shownNow(session, reading)) : then,
    atLeast: limit !== null,
  }
}

/** What the meter that gave a limit shows at least, as things are set now. */
function shownNow(session: Session, reading: Reading): number {
  const expected = reading.expected ?? reading.value
  const now = readAt(new PerturbedEvaluations(session), reading)?.now ?? expected
  return reading.value + now - expected
}

const offBy = (level: number, { low, high }: { low: number; high: number }): number =>
  Math.max(0, low - level, level - high)

/** Whether a stage clips with the change that does not clip without it, or clips more. */
const overdrives = (strip: string, before: PerturbedEvaluations, after: PerturbedEvaluations): boolean =>
  before.cascadeOf(strip).points.some((_, i) => {
    const at = placeOf(i, 'headroom')
    const [was, is] = [before.numbersAt(strip)[at] as number, after.numbersAt(strip)[at] as number]
    return !Number.isNaN(is) && is < 0 && is < was
  })
