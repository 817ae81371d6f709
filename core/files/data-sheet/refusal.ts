import type { NumberField } from '../../model/field'
import { readTypedNumber } from '../../model/typed-number'
import { formatShort, ohms, thermalNoise, WHITE_UNDER_A } from '../../units'
import type { Weighting } from './conditions'

/** An EIN may stand so far below the noise of its resistor: rounding, and a cool laboratory, dB. */
const EIN_SLACK = 0.5

/** Why a figure cannot be taken: out of its range, weighted otherwise, or less than physics allows; `null` where it can. */
export function refusal(
  key: string,
  field: NumberField,
  value: number,
  weighting: Weighting,
  beside: Readonly<Record<string, number | string>>,
): string | null {
  const typed = readTypedNumber(field, String(value))
  if (!typed.ok) return typed.message
  if (weighting === '468' && key === 'selfNoise') return 'Weighted after ITU-R 468, not A: it reads higher.'
  if (key === 'ein' && beside.einSource !== 0) {
    const least =
      thermalNoise(ohms(Number(beside.einSource ?? 150))) + (beside.einWeighting === 'Z' ? 0 : WHITE_UNDER_A)
    if (value < least - EIN_SLACK)
      return `It is below the thermal noise of its source, ${formatShort(least, 1)} dBu: measured with the input shorted, or a misprint.`
  }
  return null
}
