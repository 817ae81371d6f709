import type { Finding, TargetReading } from '../../session'
import { db, dbToRatio, formatDecimal } from '../../units'
import { settableGain } from '../settable-gain'
import { aimError, readingOf, windowError } from '../target-reading'
import type { Check } from './view'
import { recorded } from './view'

const dB = (value: number) => `${formatDecimal(Math.abs(value), 1)} dB`
const READ: Record<TargetReading, string> = { 'average': 'The average', 'peak': 'The loudest peak', 'surge-peak': 'The peak with the surge' }

/** The level at the recorder lies outside the window: by how much, which way, what to turn. */
export const targetMissed: Check = (view) => {
  const end = recorded(view)
  if (!end) return []
  const { input, point } = end
  const off = windowError(point, view.target)
  if (off === 0) return []
  const settable = settableGain(input.specs, db(input.gain - aimError(point, view.target)))
  const step = settable.gain - input.gain
  const direction = step > 0 ? 'up' : 'down'
  const turn = step === 0
    ? settable.limit === null
      ? `The gain’s step of ${formatDecimal(input.specs.gainStep, 1)} dB passes the window by; widen the window or accept this.`
      : 'The gain is at the end of its range; see what else can be done below.'
    : `Turn the gain ${direction} by ${dB(step)} to ${formatDecimal(settable.gain, 1)} dB.`
  return [{
    code: 'target-missed',
    severity: off > 0 ? 'caution' : 'note',
    stage: input.id,
    message: `${READ[view.target.reads]}, ${formatDecimal(readingOf(point, view.target.reads), 1)} dBFS, is ${dB(off)} ${off > 0 ? 'over' : 'under'} the window ${formatDecimal(view.target.low, 0)} … ${formatDecimal(view.target.high, 0)}.`,
    action: turn,
    ...(step !== 0 && { changes: [{ strip: view.strip.id, stage: input.id, setting: 'gain' as const, to: settable.gain }] }),
  }]
}

/** The wanted gain lies outside what the input can do. */
export const gainRangeExhausted: Check = (view) => {
  const end = recorded(view)
  if (!end) return []
  const { input, point } = end
  const wanted = input.gain - aimError(point, view.target)
  const { limit } = settableGain(input.specs, db(wanted))
  if (limit === null) return []
  const base = { code: 'gain-range-exhausted', stage: input.id }
  if (limit === 'highest') {
    const short = wanted - input.specs.gainMax
    return [{ ...base, severity: 'caution', message: `The target wants ${dB(short)} more gain than this input has.`, action: `Go to ${formatDecimal(Math.floor(100 * dbToRatio(db(-short))), 0)} % of the distance, or put a booster of ${formatDecimal(Math.ceil(short), 0)} dB or more before the input.` } satisfies Finding]
  }
  const excess = input.specs.gainMin - wanted
  const pad = input.specs.pad
  const canPad = pad > 0 && !input.pad
  return [{
    ...base,
    severity: 'caution',
    message: `Even at its lowest gain this input gets ${dB(excess)} more than the target wants.`,
    action: canPad
      ? `Put the pad of ${formatDecimal(pad, 0)} dB in and set the gain again.`
      : `Go to ${formatDecimal(dbToRatio(db(excess)), 1)} times the distance, put a pad of ${formatDecimal(Math.ceil(excess), 0)} dB or more before the input, or use a line input.`,
    ...(canPad && { changes: [{ strip: view.strip.id, stage: input.id, setting: 'pad' as const, to: true }] }),
  } satisfies Finding]
}

/** A pad that is in although the same level could be had without it: it brings the signal nearer to the preamp's noise. */
export const padNotNeeded: Check = (view) => {
  const end = recorded(view)
  if (!end?.input.pad) return []
  const { input, point } = end
  const wanted = input.gain - aimError(point, view.target) - input.specs.pad
  const { gain, limit } = settableGain(input.specs, db(wanted))
  if (limit === 'lowest') return []
  return [{
    code: 'pad-not-needed',
    severity: 'caution',
    stage: input.id,
    message: `The pad takes ${dB(input.specs.pad)} off and the gain puts them back on, with the preamp’s noise.`,
    action: `Take the pad out and set the gain to ${formatDecimal(gain, 1)} dB.`,
    changes: [
      { strip: view.strip.id, stage: input.id, setting: 'pad', to: false },
      { strip: view.strip.id, stage: input.id, setting: 'gain', to: gain },
    ],
  }]
}
