import { halfRange, mean } from '../numeric/statistics'
import type { Spread } from '../model'
import { formatDecimal } from '../units'
import type { Figure } from './procedure'

/** Which way a figure is better. */
export type Better = 'lower' | 'higher' | 'neither'

export interface Judged {
  name: string
  unit: string
  digits: number
  value: number
  spread: number | null
  printed: number | null | undefined
  truth: number | null
  /** Differences up to this are no difference. */
  within: number
  better: Better
  /** What more and less of it are called: "hotter", "noisier". */
  more: string
  less: string
}

/** A figure with its judgement against the printed value, in plain words. */
export function judged({ within, better, more, less, printed = null, ...figure }: Judged): Figure {
  return {
    ...figure,
    printed,
    judgement: judgement(figure.value, printed, figure.unit, figure.digits, figure.spread, within, better, more, less),
  }
}

function judgement(
  value: number,
  printed: number | null,
  unit: string,
  digits: number,
  spread: number | null,
  within: number,
  better: Better,
  more: string,
  less: string,
): string {
  if (printed === null) return 'The data sheet has no figure to compare it with.'
  const off = value - printed
  const difference = `${formatDecimal(Math.abs(off), digits)} ${unit.startsWith('dB') ? 'dB' : unit}`
  if (Math.abs(off) <= Math.max(within, spread ?? 0))
    return `As in the data sheet, within ${formatDecimal(Math.max(within, spread ?? 0), digits)} ${unit.startsWith('dB') ? 'dB' : unit}.`
  const words = `${difference} ${off > 0 ? more : less} than the data sheet`
  return better === 'neither'
    ? `${words}.`
    : `${words}: ${off > 0 === (better === 'higher') ? 'better' : 'worse'} than the maker says.`
}

/**
 * Half the range in which one reading may lie beside what is seen of it: how plug, knob and meter would come back is shown by none
 * alone (common practice, no source), dB.
 */
export const ONE_READING = 0.1

/** Mean and half range of repeats; of one alone its scatter (a standard deviation) with what one cannot show. */
export function repeated(values: readonly number[], scatter: number): { value: number; spread: number; kept: Spread } {
  const spread = values.length > 1 ? halfRange(values) : Math.hypot(Math.sqrt(3) * scatter, ONE_READING)
  return { value: mean(values), spread, kept: { value: spread, is: 'half-range' } }
}

/** A spread with that of what it was measured against, a standard uncertainty; nothing is better known than its reference. */
export function against(spread: number, reference: number): { spread: number; kept: Spread } {
  const whole = Math.hypot(spread, Math.sqrt(3) * reference)
  return { spread: whole, kept: { value: whole, is: 'half-range' } }
}
