import type { Change, Draft, Mend, TargetReading } from '../../session'
import { formatDecimal } from '../../units'
import type { Point } from '../cascade'
import type { GainControl } from '../gain-control'
import { padOf } from '../remedies'
import type { SettableGain } from '../settable-gain'
import { gainAtTarget } from '../settable-gain'
import type { ReadingPlace } from '../target-window'
import { aimError, meterReading, windowError } from '../target-window'
import { levelControls, setting } from './controls'
import { closerMend, inlinePreampMend } from './more-level'
import { tried } from './trial'
import type { Check, StripView } from './view'
import { gearName } from './view'

const dB = (value: number) => `${formatDecimal(Math.abs(value), 1)} dB`
const READ: Record<TargetReading, string> = {
  'average': 'The average',
  'peak': 'The loudest peak',
  'surge-peak': 'The peak with the surge',
}
const METER = { converter: 'dBFS', file: 'dBFS', desk: 'dB on the desk’s meter', pfl: 'dB at PFL' } as const

/** A desk’s meter has no full scale: what clips there, the stage itself says. */
const isDesk = ({ meter }: ReadingPlace) => meter === 'desk' || meter === 'pfl'

/** Room that should be left above the surge: common practice, no source. */
const LEAST_RESERVE = 6

/** What a level finding's mend has to leave behind: none of the others either. */
const LEVEL_CODES = ['clips', 'target-missed', 'gain-range-exhausted'] as const

/**
 * The level where it is read: one finding for whatever is wrong with it, and one number to turn to. Clipping goes before
 * a gain at its end, that before the surge, the surge before the window, the window before the reserve.
 */
export const level: Check = (view) => {
  const { place } = view
  const point = place && view.points[place.index]
  if (!place || !point) return []
  const state: LevelState = { view, place, point, advice: adviceFor(view, place, point) }
  const finding = clips(state) ?? exhausted(state) ?? surgeClips(state) ?? missed(state) ?? closeToFull(state)
  return finding ? [finding] : []
}

interface LevelState {
  view: StripView
  place: ReadingPlace
  point: Point
  advice: Advice | null
}

/** What the gain before the meter would be set to for the target alone. */
interface Advice extends SettableGain {
  control: GainControl
  /** Wanted less what the range gives, dB; positive where more is wanted, negative where less. */
  short: number
}

/** Of several gains the last one that reaches by itself; where none does, the last. */
function adviceFor(view: StripView, place: ReadingPlace, point: Point): Advice | null {
  const all = levelControls(view).map((control) => adviceAt(control, view, place, point))
  return all.find(({ limit }) => limit === null) ?? all[0] ?? null
}

function adviceAt(control: GainControl, view: StripView, place: ReadingPlace, point: Point): Advice {
  const error = aimError(point, place, view.target)
  const { low, high, aim } = view.target
  // A target that reads averages must not take the peaks over the top.
  const wanted = Math.min(control.value - error, control.value + (point.headroom ?? Infinity))
  const settable = gainAtTarget(control.range, wanted, {
    under: aim - low,
    over: Math.min(high - aim, control.value + (point.headroom ?? Infinity) - wanted),
  })
  const short = settable.limit === null ? 0 : wanted - settable.gain
  return { control, short, ...settable }
}

const stageOf = ({ view, place, advice }: LevelState) =>
  advice?.control.stage ?? view.stages[place.index]?.id ?? view.strip.id

/** Turning to the target, said as one says it: by the box where there are several gains. */
function turnTo({ view, advice }: LevelState): Mend[] {
  if (!advice || Math.abs(advice.gain - advice.control.value) < SAME) return []
  const { control, gain } = advice
  const step = gain - control.value
  const several = view.controls.filter((each) => !each.locked && each.domain === 'analogue').length > 1
  const which = several ? `${control.setting} of "${gearName(view, control.stage)}"` : control.setting
  return [
    {
      action: `Turn the ${which} ${step > 0 ? 'up' : 'down'} by ${dB(step)} to ${formatDecimal(gain, 1)} dB.${several ? ' "Set for me" shares it out over all gains.' : ''}`,
      changes: [setting(view, control, gain)],
    },
  ]
}

function clips(state: LevelState): Draft | null {
  const { point, place, view } = state
  if (point.headroom === null || point.headroom >= 0 || isDesk(place)) return null
  const least = LEAST_RESERVE - (point.surgeHeadroom ?? 0)
  return {
    code: 'clips',
    severity: 'stop',
    stage: stageOf(state),
    message: `The rehearsed peak is ${dB(point.headroom)} over 0 dBFS: ${place.meter === 'converter' ? 'the converter' : 'the file'} clips now.`,
    action: `Bring at least ${dB(least)} less to "${view.stages[place.index]?.gear.name}"; nothing behind the converter can mend it.`,
    mends: () => [...turnTo(state), ...lessLevel(state)],
    cures: LEVEL_CODES,
  }
}

function surgeClips(state: LevelState): Draft | null {
  const { point, place, view, advice } = state
  const over = -(point.surgeHeadroom ?? 0)
  if (over <= 0 || isDesk(place)) return null
  const off = windowError(point, place, view.target)
  const found = { code: 'surge-clips', severity: 'caution', stage: stageOf(state) } as const
  const message = `It fits now, but the surge will be ${dB(over)} over 0 dBFS.`
  const cured = advice !== null && advice.control.value - advice.gain > over
  if (off > 0 && cured) {
    return {
      ...found,
      message,
      action: `Bring ${dB(over)} less to it before the take.`,
      mends: () => turnTo(state),
      cures: LEVEL_CODES,
    }
  }
  return {
    ...found,
    message,
    action: `This target and this surge do not go together: choose a target that aims at least ${dB(over)} lower, or the one by risk.`,
  }
}

/** The reading in words: by how much it misses the window, and which way. */
function missWords({ view, place, point }: LevelState, off: number): string {
  const { low, high, reads } = view.target
  const reading = `${formatDecimal(meterReading(point, place, view.target), 1)} ${METER[place.meter]}`
  return `${READ[reads]}, ${reading}, is ${dB(off)} ${off > 0 ? 'over' : 'under'} the window ${formatDecimal(low, 0)} … ${formatDecimal(high, 0)}.`
}

/** The gain stands at the end of its range, and the window is not reached. */
function exhausted(state: LevelState): Draft | null {
  const { view, place, point, advice } = state
  const off = windowError(point, place, view.target)
  const atItsEnd = advice !== null && advice.limit !== null && Math.abs(advice.gain - advice.control.value) < SAME
  if (off === 0 || !atItsEnd) return null
  const more = advice.limit === 'highest'
  // At its minimum and still too quiet, or the reverse: something else is held there.
  if (more !== off < 0) return null
  const words = missWords(state, off)
  return {
    code: 'gain-range-exhausted',
    severity: 'caution',
    stage: stageOf(state),
    message: more
      ? `${words} It wants ${dB(advice.short)} more gain than there is.`
      : `${words} Even at its minimum this gain brings ${dB(advice.short)} too much.`,
    action: more
      ? 'Go closer, use a more sensitive microphone, or an input with more gain.'
      : 'Go further away, use a less sensitive input, or put a pad before it.',
    mends: () => (more ? moreLevel(state) : lessLevel(state)),
    cures: LEVEL_CODES,
  }
}

/** Gains that close are the same. */
const SAME = 1e-9

function missed(state: LevelState): Draft | null {
  const { view, place, point, advice } = state
  const off = windowError(point, place, view.target)
  if (off === 0) return null
  const found: Draft = {
    code: 'target-missed',
    severity: off > 0 ? 'caution' : 'note',
    stage: stageOf(state),
    message: missWords(state, off),
    action: missedByHand(state),
  }
  // A direction that the window does not ask for is a plan for several gains, not advice about this one.
  const helps = advice !== null && Math.sign(advice.gain - advice.control.value) === -Math.sign(off)
  if (!helps) return found
  return { ...found, mends: () => turnTo(state), cures: advice.limit === null ? LEVEL_CODES : ['clips'] }
}

function missedByHand({ view, advice }: LevelState): string {
  const locked = view.controls.find((each) => each.locked)
  if (!advice && locked) {
    return `The ${locked.setting} of "${gearName(view, locked.stage)}" is locked: unlock it, or change the level before it.`
  }
  if (!advice) return 'Nothing here can be turned: change the level before it.'
  const step = advice.control.range.gainStep
  return advice.limit === null && step > 0
    ? `The gain’s step of ${dB(step)} has no place in the window; widen the window, or accept this.`
    : `Change the level before "${gearName(view, advice.control.stage)}".`
}

function closeToFull(state: LevelState): Draft | null {
  const { point, place, view } = state
  const left = point.surgeHeadroom
  if (left === null || left >= LEAST_RESERVE || isDesk(place)) return null
  const intended = view.target.high > -LEAST_RESERVE || view.target.reads === 'surge-peak'
  return {
    code: 'little-headroom',
    severity: intended ? 'note' : 'caution',
    stage: stageOf(state),
    message: `After the surge ${dB(left)} are left before 0 dBFS.`,
    action: `${intended ? 'The chosen target works that close to full scale.' : 'The level is where the target wants it, and the surge is large.'} For ${LEAST_RESERVE} dB of reserve (common practice) choose a target ${dB(LEAST_RESERVE - left)} lower.`,
  }
}

/** The input's own pad first, then one in the line; each with the gain set again. */
function lessLevel({ view, place, advice }: LevelState): Mend[] {
  const stage = view.stages[place.index]
  const excess = advice ? -advice.short : 0
  const mends: Mend[] = []
  if (stage?.kind === 'interface' && stage.specs.pad > 0 && !stage.pad) {
    const padIn: Change = { strip: view.strip.id, stage: stage.id, setting: 'pad', to: true }
    mends.push({
      action: `Put the pad of ${formatDecimal(stage.specs.pad, 0)} dB in and set the gain again.`,
      changes: withGainSet(view, [padIn], advice?.control),
    })
  }
  const at = advice ? view.stages.findIndex((each) => each.id === advice.control.stage) : place.index
  const [before, behind] = [view.stages[at - 1], view.stages[at]]
  if (!before || !behind || excess <= 0 || view.points[at - 1]?.unit !== 'dBu') return mends
  const insert = (loss: number): Change[] => [
    { do: 'insert', strip: view.strip.id, index: at, gear: padOf(view.session, loss, before, behind) },
  ]
  // The pad's own impedances change the joint: what is still too much after the first guess is added.
  const first = Math.ceil(excess)
  if (first > LARGEST_PAD) return mends
  const rest = tried(view, insert(first))?.error ?? 0
  const loss = Math.max(1, first + Math.ceil(rest - 1e-9))
  if (loss > LARGEST_PAD) return mends
  mends.push({
    action: `Put a pad of ${loss} dB before "${behind.gear.name}".`,
    changes: withGainSet(view, insert(loss), advice?.control),
  })
  return mends
}

/** No usual pad is larger (common practice, no source): what is still too much then wants another input. */
const LARGEST_PAD = 40

function moreLevel({ view, place, advice }: LevelState): Mend[] {
  if (!advice) return []
  const stage = view.stages[place.index]
  const padOut: Mend[] =
    stage?.kind === 'interface' && stage.pad
      ? [
          {
            action: 'Take the pad out and set the gain again.',
            changes: withGainSet(
              view,
              [{ strip: view.strip.id, stage: stage.id, setting: 'pad', to: false }],
              advice.control,
            ),
          },
        ]
      : []
  return [
    ...padOut,
    ...closerMend(view, advice.short),
    ...inlinePreampMend(view, advice.short, (changes) => withGainSet(view, changes, advice.control)),
  ]
}

/** Changes, and the gain set again to what the target then wants. */
export function withGainSet(view: StripView, changes: Change[], control: GainControl | undefined): Change[] {
  const error = control && tried(view, changes)?.error
  if (!control || error == null) return changes
  const { low, high, aim } = view.target
  const { gain } = gainAtTarget(control.range, control.value - error, { under: aim - low, over: high - aim })
  return [...changes, setting(view, control, gain)]
}
