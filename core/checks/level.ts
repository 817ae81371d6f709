import { isInterface } from '../gear'
import type { Change } from '../edits'
import type { Draft, Fix } from './finding'
import type { TargetReading } from '../model'
import { isBus } from '../model'
import { SAME_DB, formatDecimal } from '../units'
import type { Point } from '../chain/cascade'
import { hasDynamics } from '../chain/dynamics'
import { padOf } from './remedies'
import type { ReadingPlace } from '../chain/target-window'
import { aimError, meterReading, windowError } from '../chain/target-window'
import { setting } from './controls'
import type { Advice } from './gain-advice'
import { adviceFor, withGainSet } from './gain-advice'
import { closerFix, inlinePreampFix } from './more-level'
import { lowerSends } from './sends'
import { leastLess, tried } from './trial'
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

/** What a level finding's fix has to leave behind: none of the others either. */
const LEVEL_CODES = ['clips', 'target-missed', 'gain-range-exhausted'] as const

/**
 * The level where it is read: one finding for whatever is wrong with it, and one number to turn to. Clipping goes before the surge,
 * the surge before a gain at its end, that before the window, the window before the reserve.
 */
export const level: Check = (view) => {
  const { place } = view
  const point = place && view.points[place.index]
  if (!place || !point) return []
  const state: LevelState = { view, place, point, advice: adviceFor(view, place, point) }
  const finding = clips(state) ?? surgeClips(state) ?? exhausted(state) ?? missed(state) ?? closeToFull(state)
  return finding ? [finding] : []
}

interface LevelState {
  view: StripView
  place: ReadingPlace
  point: Point
  advice: Advice | null
}

const stageOf = ({ view, place, advice }: LevelState) =>
  advice?.control.stage ?? view.stages[place.index]?.id ?? view.strip.id

/** Turning to the target, said as one says it: by the box where there are several gains. */
function turnTo({ view, advice }: LevelState): Fix[] {
  if (!advice || Math.abs(advice.gain - advice.control.value) < SAME_DB) return []
  const { control, gain } = advice
  const step = gain - control.value
  const several = view.controls.filter((each) => !each.locked && each.domain === 'analogue').length > 1
  const which = several ? `${control.setting} of “${gearName(view, control.stage)}”` : control.setting
  return [
    {
      action: `Turn the ${which} ${step > 0 ? 'up' : 'down'} by ${dB(step)} to ${formatDecimal(gain, 1)} dB.${several ? ' "Set for me" shares it out over all gains.' : ''}`,
      changes: [setting(view, control, gain)],
    },
  ]
}

/** Rounded up to a tenth, as "at least" is said. */
const atLeast = (value: number) => formatDecimal(Math.ceil(10 * value - 1e-6) / 10, 1)

/**
 * What has to come less to the place where the target is read, in words that a hand can follow: at its own input, and before a
 * compressor on the way only as much as does it through its curve.
 */
function lessThere({ view, place }: LevelState, by: number): string {
  const input = view.stages[place.index]?.gear.name ?? ''
  if (place.index === 0) return `Lower the file of “${input}” itself by at least ${atLeast(by)} dB`
  const at = view.stages.findLastIndex((stage, i) => i > 0 && i < place.index && hasDynamics(stage))
  const plain = `Bring at least ${atLeast(by)} dB less to “${input}”`
  if (at < 0) return plain
  const curve = view.stages[at]?.gear.name ?? ''
  const reserve = (points: readonly Point[]) => (points[place.index]?.surgeHeadroom ?? Infinity) >= LEAST_RESERVE - 1e-6
  const before = by >= LEAST_RESERVE ? leastLess(view, at, reserve) : null
  return `${plain}: turn the output or make-up of “${curve}” down by that much${before === null ? '' : `, or bring ${formatDecimal(before, 1)} dB less to “${curve}”`}`
}

function clips(state: LevelState): Draft | null {
  const { point, place } = state
  if (point.headroom === null || point.headroom >= 0 || isDesk(place)) return null
  const least = LEAST_RESERVE - (point.surgeHeadroom ?? 0)
  return {
    code: 'clips',
    severity: 'stop',
    stage: stageOf(state),
    message: `The rehearsed peak is ${dB(point.headroom)} over 0 dBFS: ${place.meter === 'converter' ? 'the converter' : 'the file'} clips now.`,
    action: () => `${lessThere(state, least)}. Turning down behind the converter does not undo it.`,
    fixes: () => [...turnTo(state), ...lessLevel(state)],
    cures: LEVEL_CODES,
  }
}

function surgeClips(state: LevelState): Draft | null {
  const { point, place, view } = state
  const over = -(point.surgeHeadroom ?? 0)
  if (over <= 0 || isDesk(place)) return null
  const off = windowError(point, place, view.target)
  const found = { code: 'surge-clips', severity: 'caution', stage: stageOf(state) } as const
  const message = `It fits now, but the surge will be ${dB(over)} over 0 dBFS.`
  if (off > 0) {
    return {
      ...found,
      message,
      action: () => `${lessThere(state, over)} before the take.`,
      fixes: () => [...turnTo(state), ...lessLevel(state)],
      cures: LEVEL_CODES,
    }
  }
  return {
    ...found,
    message,
    action: `This target leaves no room for this surge: choose a target that aims at least ${atLeast(over)} dB lower, or the one by risk.`,
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
  const atItsEnd = advice !== null && advice.limit !== null && Math.abs(advice.gain - advice.control.value) < SAME_DB
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
      ? `${words} It wants ${dB(advice.short)} more gain than its range has.`
      : `${words} Even at its minimum this gain gives ${dB(advice.short)} too much.`,
    action: more
      ? (surgeInTheWay(state, advice.short) ??
        'Go closer, use a more sensitive microphone, or an input with more gain.')
      : 'Go further away, use a less sensitive input, or put a pad before it.',
    fixes: () => (more ? moreLevel(state) : lessLevel(state)),
    cures: LEVEL_CODES,
  }
}

/** Said in the place of more level where the surge has no room for it. */
function surgeInTheWay({ point, place, view }: LevelState, more: number): string | null {
  const over = more - (point.surgeHeadroom ?? Infinity)
  if (over <= 0 || isDesk(place)) return null
  const left = Math.max(0, view.stages[place.index] ? (point.surgeHeadroom ?? 0) : 0)
  return `Leave the level: the surge has only ${formatDecimal(Math.floor(10 * left) / 10, 1)} dB left. Choose a target that aims at least ${atLeast(over)} dB lower, or the one by risk.`
}

function missed(state: LevelState): Draft | null {
  const { view, place, point, advice } = state
  const off = windowError(point, place, view.target)
  if (off === 0) return null
  const found: Draft = {
    code: 'target-missed',
    severity: off > 0 ? 'caution' : 'note',
    stage: stageOf(state),
    message: missWords(state, off),
    action: (off < 0 && surgeInTheWay(state, -aimError(point, place, view.target))) || missedByHand(state),
  }
  // A direction that the window does not ask for is a plan for several gains, not advice about this one.
  const helps = advice !== null && Math.sign(advice.gain - advice.control.value) === -Math.sign(off)
  if (!helps) return found
  return { ...found, fixes: () => turnTo(state), cures: advice.limit === null ? LEVEL_CODES : ['clips'] }
}

function missedByHand({ view, advice }: LevelState): string {
  const locked = view.controls.find((each) => each.locked)
  if (!advice && locked) {
    return `The ${locked.setting} of “${gearName(view, locked.stage)}” is locked: unlock it, or change the level before it.`
  }
  if (!advice) return 'No gain here can be set: change the level before it.'
  const step = advice.control.range.gainStep
  return advice.limit === null && step > 0
    ? `The gain’s step of ${dB(step)} has no place in the window; widen the window, or accept this.`
    : `Change the level before “${gearName(view, advice.control.stage)}”.`
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
    action: `${intended ? 'The chosen target works that close to full scale.' : 'The level is at its target, and the surge is large.'} For ${LEAST_RESERVE} dB of reserve (common practice) choose a target ${atLeast(LEAST_RESERVE - left)} dB lower.`,
  }
}

/** The input's own pad first, then one in the line; each with the gain set again. */
function lessLevel({ view, place, point, advice }: LevelState): Fix[] {
  if (isBus(view.strip)) return lessFromSends(view, point)
  const stage = view.stages[place.index]
  const excess = advice ? -advice.short : 0
  const fixes: Fix[] = []
  if (isInterface(stage) && stage.specs.pad > 0 && !stage.pad) {
    const padIn: Change = { strip: view.strip.id, stage: stage.id, setting: 'pad', to: true }
    fixes.push({
      action: `Put the pad of ${formatDecimal(stage.specs.pad, 0)} dB in and set the gain again.`,
      changes: withGainSet(view, [padIn], advice?.control),
    })
  }
  const at = advice ? view.stages.findIndex((each) => each.id === advice.control.stage) : place.index
  const [before, behind] = [view.stages[at - 1], view.stages[at]]
  if (!before || !behind || excess <= 0 || view.points[at - 1]?.unit !== 'dBu') return fixes
  const insert = (loss: number): Change[] => [
    { do: 'insert', strip: view.strip.id, index: at, gear: padOf(view.session, loss, before, behind) },
  ]
  // The pad's own impedances change the joint: what is still too much after the first guess is added.
  const first = Math.ceil(excess)
  if (first > LARGEST_PAD) return fixes
  const rest = tried(view, insert(first))?.error ?? 0
  const loss = Math.max(1, first + Math.ceil(rest - 1e-9))
  if (loss > LARGEST_PAD) return fixes
  fixes.push({
    action: `Put a pad of ${loss} dB before “${behind.gear.name}”.`,
    changes: withGainSet(view, insert(loss), advice?.control),
  })
  return fixes
}

/** A bus that is too hot is brought down where it is fed: no pad belongs into a sum. */
function lessFromSends(view: StripView, point: Point): Fix[] {
  const least = Math.max(0, LEAST_RESERVE - (point.surgeHeadroom ?? 0))
  return [least, least + 1, least + 3].flatMap((by) => {
    const changes = lowerSends(view.session, view.strip.id, by)
    return changes.length === 0
      ? []
      : [{ action: `Bring all ${changes.length} sends into this bus down by ${atLeast(by)} dB.`, changes }]
  })
}

/** No usual pad is larger (common practice, no source): what is still too much then wants another input. */
const LARGEST_PAD = 40

function moreLevel({ view, place, advice }: LevelState): Fix[] {
  if (!advice) return []
  const stage = view.stages[place.index]
  const padOut: Fix[] =
    isInterface(stage) && stage.pad
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
    ...closerFix(view, advice.short),
    ...inlinePreampFix(view, advice.short, (changes) => withGainSet(view, changes, advice.control)),
  ]
}
