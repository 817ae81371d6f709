import { db, formatDecimal } from '../units'
import { settableGain } from '../chain/settable-gain'
import { aimError } from '../chain/target-window'
import { setting } from './controls'
import type { Check } from './view'
import { inputs } from './view'

/** A pad that is in although the same level could be had without it: it brings the signal nearer to the preamp's noise. */
export const padNotNeeded: Check = (view) => {
  const { place } = view
  const input = inputs(view).at(-1)
  const point = place && view.points[place.index]
  const control = view.controls.find((each) => each.stage === input?.id && !each.locked)
  const alone = view.controls.filter((each) => !each.locked && each.domain === 'analogue').length <= 1
  if (!point || !input?.pad || !control || !alone || place.meter !== 'converter') return []
  const wanted = input.gain - aimError(point, place, view.target) - input.specs.pad
  const { gain, limit } = settableGain(input.specs, db(wanted))
  if (limit !== null) return []
  return [
    {
      code: 'pad-not-needed',
      severity: 'caution',
      stage: input.id,
      message: `The pad takes ${formatDecimal(input.specs.pad, 1)} dB off and the gain adds them again, with the preamp’s noise.`,
      action: 'Take the pad out and set the gain again.',
      fixes: () => [
        {
          action: `Take the pad out and set the gain to ${formatDecimal(gain, 1)} dB.`,
          changes: [{ strip: view.strip.id, stage: input.id, setting: 'pad', to: false }, setting(view, control, gain)],
        },
      ],
    },
  ]
}
