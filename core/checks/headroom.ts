import type { ResolvedSource } from '../gear/sound-source/stage'
import { isMicrophone, isSoundSource } from '../gear'
import type { Change } from '../edits'
import type { Draft, Fix } from './finding'
import { isBus } from '../model'
import type { Db } from '../units'
import { formatDecimal } from '../units'
import type { Point } from '../chain/cascade'
import { nearGain } from '../gear/sound-source/chain'
import type { GainControl } from '../chain/gain-control'
import { padOf } from './remedies'
import { RESERVE, hasReserve, hasRoom } from '../chain/reserve'
import { gainGrid } from '../chain/settable-gain'
import { indexOf, levelControls, setting, turnable } from './controls'
import { withGainSet } from './gain-advice'
import { leastLess, leastStep, tried } from './trial'
import type { Check, StripView } from './view'
import { NOTHING, gearName, microphones, perStage, source } from './view'

const dB = (value: number) => `${formatDecimal(Math.abs(value), 1)} dB`

/** The capsule overloads before any gain: only less sound at it helps. */
export const capsuleOverload: Check = (view) => {
  const point = view.points[0]
  const microphone = microphones(view)[0]
  const from = source(view)
  const ceiling = point?.ceiling ?? null
  if (!point || !microphone || !from || ceiling === null) return []
  const found = (code: Draft['code'], severity: Draft['severity'], over: number, what: string): Draft[] => {
    const distance = farEnough(from, point.surgePeak - ceiling)
    const move =
      distance === null
        ? 'Use a microphone with a higher maximum SPL, or its own pad.'
        : `Move it to at least ${formatDecimal(distance, 2)} m, where the surge fits too, or use a microphone with a higher maximum SPL.`
    return [
      {
        code,
        severity,
        stage: microphone.id,
        message: `${what} at the capsule is ${dB(over)} over the maximum SPL of “${microphone.gear.name}”, ${formatDecimal(ceiling, 0)} dB SPL. No gain setting changes that.`,
        action: move,
      },
    ]
  }
  if (point.peak > ceiling) return found('capsule-overload', 'stop', point.peak - ceiling, 'The rehearsed peak')
  if (point.surgePeak > ceiling)
    return found('capsule-overload-surge', 'caution', point.surgePeak - ceiling, 'The surge')
  return []
}

/** As far away as a setting can say, m. */
const FARTHEST = 100

/** The distance from which on a source is so much quieter, rounded up to a centimetre; `null` where none is. */
export function farEnough(source: ResolvedSource, by: number): number | null {
  const { specs, distance, gear } = source
  const now = nearGain(specs.distance, distance, gear.size)
  const quieter = (centimetres: number) => now - nearGain(specs.distance, centimetres / 100, gear.size) >= by
  const first = Math.ceil(100 * distance)
  const steps = leastStep(100 * FARTHEST - first, (step) => quieter(first + step), 1)
  return steps === null ? null : (first + steps) / 100
}

/** A stage on the way is overdriven: the distortion stays, whatever is turned down behind it. */
export const overdriven = perStage((view, stage, i): readonly Draft[] => {
  const point = view.points[i]
  // What a sum does to its own stage is said of the sum.
  const isSum = i === 0 && isBus(view.strip) && point?.unit === 'dBu' && (point.headroom ?? 0) < 0
  const isRead = i === view.place?.index && (view.place.meter === 'converter' || view.place.meter === 'file')
  if (!point || isRead || isSum || point.headroom === null || isSoundSource(stage) || isMicrophone(stage))
    return NOTHING
  const over = -point.headroom
  const surgeOver = -(point.surgeHeadroom ?? point.headroom)
  if (surgeOver <= 0) return NOTHING
  const { name } = stage.gear
  if (stage.driven) {
    return [
      {
        code: 'driven',
        severity: 'note',
        stage: stage.id,
        message: `“${name}” is driven ${dB(Math.max(over, surgeOver))} into clipping on purpose.`,
        action: 'Every later stage carries this distortion; set the later gains for level alone.',
      },
    ]
  }
  const rehearsed = over > 0
  return [
    {
      code: rehearsed ? 'overdriven' : 'surge-overdrives',
      severity: rehearsed ? 'stop' : 'caution',
      stage: stage.id,
      message: rehearsed
        ? `“${name}” is overdriven by ${dB(over)} at the rehearsed peak.${hiddenWords(view, i)}`
        : `“${name}” fits now, but the surge overdrives it by ${dB(surgeOver)}.`,
      action: () => lessInto(view, i),
      fixes: () => [...turnDowns(view, i), ...padBefore(view, i)],
    },
  ]
})

const isFixed = (points: readonly Point[], at: number, enough: typeof hasRoom): boolean => {
  const point = points[at]
  return point !== undefined && enough(point)
}

/** What to do by hand about an overdriven stage: less at its input, or – where its own curve keeps that from helping – at its output. */
function lessInto(view: StripView, at: number): string {
  const name = view.stages[at]?.gear.name ?? ''
  const less = at === 0 ? null : leastLess(view, at, (points) => isFixed(points, at, hasReserve))
  if (less !== null && less <= MOST_LESS)
    return `Bring at least ${formatDecimal(less, 1)} dB less to “${name}”: a lower output, a pad or more distance before it. Turning down behind it only makes the distortion quieter.`
  const point = view.points[at]
  const short = Math.max(
    RESERVE.peak - (point?.headroom ?? Infinity),
    RESERVE.surge - (point?.surgeHeadroom ?? Infinity),
  )
  return `Turn the output or the make-up of “${name}” down by at least ${formatDecimal(Math.ceil(10 * short - 1e-6) / 10, 1)} dB. Its own curve holds the level, so less before it does not help.`
}

/** More than that nobody takes off before a stage, dB (common practice, no source). */
const MOST_LESS = 40

/** An early clip that no later meter shows. */
function hiddenWords(view: StripView, at: number): string {
  const { place } = view
  const end = place && place.index > at && place.meter === 'converter' ? view.points[place.index] : undefined
  if (!end || end.headroom === null || end.headroom <= 0) return ''
  return ` The recorder reads ${formatDecimal(end.peak, 1)} dBFS and does not show it.`
}

/**
 * What can be turned down for it, from the stage's own gain towards the source: so far that the reserve is there again, and the level
 * behind it set anew; else as far as nothing clips, with what is left.
 */
function turnDowns(view: StripView, at: number): Fix[] {
  const before = turnable(view, at)
    .reverse()
    .filter((control) => indexOf(view, control) <= at)
  const [last] = levelControls(view).filter((control) => indexOf(view, control) > at)
  const fixes = [hasReserve, hasRoom].flatMap((enough) =>
    before.flatMap((control): Change[][] => {
      const to = lowered(view, control, at, enough)
      if (to === null) return []
      const down = [setting(view, control, to)]
      return last ? [withGainSet(view, down, last), down] : [down]
    }),
  )
  return fixes.map((changes) => ({ action: turnedText(view, at, changes), changes }))
}

/** The highest gain of a control at which a stage has enough room; `null` where none of its range does. */
function lowered(view: StripView, control: GainControl, at: number, enough: typeof hasRoom): Db | null {
  const grid = gainGrid(control.range)
  const from = grid.below(control.value)
  const holds = (down: number) =>
    isFixed(tried(view, [setting(view, control, grid.at(from - down))])?.points ?? [], at, enough)
  const steps = leastStep(from, holds, 1)
  return steps === null || steps === 0 ? null : grid.at(from - steps)
}

function turnedText(view: StripView, at: number, changes: readonly Change[]): string {
  const parts = changes.flatMap((change) => {
    if ('do' in change) return []
    const now = view.controls.find((each) => each.stage === change.stage && each.setting === change.setting)?.value ?? 0
    const way = Number(change.to) > now ? 'up' : 'down'
    return Number(change.to) === now
      ? []
      : [
          `the ${change.setting} of “${gearName(view, change.stage)}” ${way} to ${formatDecimal(Number(change.to), 1)} dB`,
        ]
  })
  const left = tried(view, changes)?.points[at]
  const surge = left?.surgeHeadroom == null ? '' : `, ${formatDecimal(left.surgeHeadroom, 1)} dB after the surge`
  return `Turn ${parts.join(' and ')}. That leaves ${formatDecimal(left?.headroom ?? null, 1)} dB at “${view.stages[at]?.gear.name ?? ''}”${surge}.`
}

function padBefore(view: StripView, at: number): Fix[] {
  const [before, stage] = [view.stages[at - 1], view.stages[at]]
  if (!before || !stage || view.points[at - 1]?.unit !== 'dBu' || view.points[at]?.unit !== 'dBu') return []
  if (
    'pad' in stage.settings &&
    stage.settings.pad === false &&
    'specs' in stage &&
    'pad' in stage.specs &&
    stage.specs.pad > 0
  ) {
    return [
      {
        action: `Put the pad of ${formatDecimal(stage.specs.pad, 0)} dB of “${stage.gear.name}” in.`,
        changes: [{ strip: view.strip.id, stage: stage.id, setting: 'pad', to: true }],
      },
    ]
  }
  const less = leastLess(view, at, (points) => isFixed(points, at, hasReserve))
  if (less === null) return []
  // The pad's own impedances change the joint: a little more is tried where the first falls short.
  return [Math.ceil(less), Math.ceil(less) + 2]
    .filter((loss) => loss > 0 && loss <= LARGEST_PAD)
    .map((loss) => ({
      action: `Put a pad of ${loss} dB before “${stage.gear.name}”.`,
      changes: [{ do: 'insert', strip: view.strip.id, index: at, gear: padOf(view.session, loss, before, stage) }],
    }))
}

/** No usual pad is larger (common practice, no source). */
const LARGEST_PAD = 40
