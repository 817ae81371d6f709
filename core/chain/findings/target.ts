import type { Finding, TargetReading } from '../../session'
import { db, dbToRatio, formatDecimal } from '../../units'
import { boosterOf, padOf } from '../remedies'
import { settableGain } from '../settable-gain'
import { aimError, readingOf, windowError } from '../target-reading'
import type { Check, StripView } from './view'
import { gearName, inputs, recorded } from './view'

const dB = (value: number) => `${formatDecimal(Math.abs(value), 1)} dB`
const READ: Record<TargetReading, string> = {
  'average': 'The average',
  'peak': 'The loudest peak',
  'surge-peak': 'The peak with the surge',
}

/** One gain alone decides about the level; with several, the planner shares it out. */
const single = (view: StripView) =>
  view.controls.filter((each) => !each.locked && each.domain === 'analogue').length <= 1

/** The level at the recorder lies outside the window: by how much, which way, what to turn. */
export const targetMissed: Check = (view) => {
  const end = recorded(view)
  if (!end) return []
  const { point, control } = end
  const off = windowError(point, view.target)
  if (off === 0) return []
  const settable = control && settableGain(control.range, db(control.value - aimError(point, view.target)))
  const step = control && settable && !control.locked ? settable.gain - control.value : 0
  const direction = step > 0 ? 'up' : 'down'
  const which = single(view) ? 'gain' : `${control?.setting ?? 'gain'} of "${gearName(view, control?.stage ?? '')}"`
  const turn =
    step !== 0
      ? `Turn the ${which} ${direction} by ${dB(step)} to ${formatDecimal(settable?.gain, 1)} dB.${single(view) ? '' : ' "Set for me" shares it out over all gains.'}`
      : !control || control.locked
        ? 'Nothing here can be turned: unlock a gain, or change the level before it.'
        : settable?.limit === null
          ? `The gain’s step of ${formatDecimal(control.range.gainStep, 1)} dB passes the window by; widen the window or accept this.`
          : 'The gain is at the end of its range; see what else can be done below.'
  return [
    {
      code: 'target-missed',
      severity: off > 0 ? 'caution' : 'note',
      stage: control?.stage ?? end.stage.id,
      message: `${READ[view.target.reads]}, ${formatDecimal(readingOf(point, view.target.reads), 1)} dBFS, is ${dB(off)} ${off > 0 ? 'over' : 'under'} the window ${formatDecimal(view.target.low, 0)} … ${formatDecimal(view.target.high, 0)}.`,
      action: turn,
      ...(step !== 0 &&
        control &&
        settable && {
          changes: [{ strip: view.strip.id, stage: control.stage, setting: control.setting, to: settable.gain }],
        }),
    },
  ]
}

/** The wanted gain lies outside what the only gain of the strip can do. */
export const gainRangeExhausted: Check = (view) => {
  const end = recorded(view)
  const control = end?.control
  const stage = view.stages.find((each) => each.id === control?.stage)
  if (!end || !control || !stage || control.locked || control.domain === 'digital' || !single(view)) return []
  const wanted = control.value - aimError(end.point, view.target)
  const { limit } = settableGain(control.range, db(wanted))
  if (limit === null) return []
  const index = view.stages.indexOf(stage)
  const base = { code: 'gain-range-exhausted', stage: stage.id, severity: 'caution' as const }
  const hasMicrophone = view.stages.some((each) => each.kind === 'microphone')
  if (limit === 'highest') {
    const short = wanted - control.range.gainMax
    const gear = boosterOf(view.session, Math.ceil(short))
    return [
      {
        ...base,
        message: `The target wants ${dB(short)} more gain than this input has.`,
        action: `${hasMicrophone ? `Go to ${formatDecimal(Math.floor(100 * dbToRatio(db(-short))), 0)} % of the distance, or put` : 'Put'} a booster of ${formatDecimal(Math.ceil(short), 0)} dB or more before the input.`,
        ...(hasMicrophone && { changes: [{ do: 'insert', strip: view.strip.id, index, gear }] }),
      } satisfies Finding,
    ]
  }
  const excess = control.range.gainMin - wanted
  const pad = stage.kind === 'interface' ? stage.specs.pad : 0
  const canPad = stage.kind === 'interface' && pad > 0 && !stage.pad
  return [
    {
      ...base,
      message: `Even at its lowest gain this input gets ${dB(excess)} more than the target wants.`,
      action: canPad
        ? `Put the pad of ${formatDecimal(pad, 0)} dB in and set the gain again.`
        : `${hasMicrophone ? `Go to ${formatDecimal(dbToRatio(db(excess)), 1)} times the distance, put` : 'Put'} a pad of ${formatDecimal(Math.ceil(excess), 0)} dB or more before the input, or use a line input.`,
      changes: canPad
        ? [{ strip: view.strip.id, stage: stage.id, setting: 'pad', to: true }]
        : [{ do: 'insert', strip: view.strip.id, index, gear: padOf(view.session, Math.min(100, Math.ceil(excess))) }],
    } satisfies Finding,
  ]
}

/** A pad that is in although the same level could be had without it: it brings the signal nearer to the preamp's noise. */
export const padNotNeeded: Check = (view) => {
  const end = recorded(view)
  const input = inputs(view).at(-1)
  if (!end || !input?.pad || !single(view)) return []
  const wanted = input.gain - aimError(end.point, view.target) - input.specs.pad
  const { gain, limit } = settableGain(input.specs, db(wanted))
  if (limit === 'lowest') return []
  return [
    {
      code: 'pad-not-needed',
      severity: 'caution',
      stage: input.id,
      message: `The pad takes ${dB(input.specs.pad)} off and the gain puts them back on, with the preamp’s noise.`,
      action: `Take the pad out and set the gain to ${formatDecimal(gain, 1)} dB.`,
      changes: [
        { strip: view.strip.id, stage: input.id, setting: 'pad', to: false },
        { strip: view.strip.id, stage: input.id, setting: 'gain', to: gain },
      ],
    },
  ]
}
