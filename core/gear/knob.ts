import { described, z } from '../model/z'
import { fields, numbers } from '../model/field'

export const knobFields = fields({
  position: {
    label: 'Knob position',
    unit: 'h',
    min: 7,
    max: 17,
    help: 'Hours on a clock face, 7 fully down to 17 (five o’clock) fully up.',
  },
  gain: { label: 'Gain there', unit: 'dB', min: -100, max: 100, help: 'Gain read or measured at this position.' },
})

export const knobTable = described(
  'Gain at marked knob positions, from fully down to fully up.',
  z.optional(z.array(numbers(knobFields)).check(z.maxLength(100))),
)
export type KnobTable = NonNullable<z.infer<typeof knobTable>>
