import { halfRange, mean } from '../numeric/statistics'
import type { Spread } from '../session'
import { formatDecimal } from '../units'
import type { Figure } from './procedure'

/** Which way a figure is better. */
export type Better = 'lower' | 'higher' | 'neither'

interface Judged {
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
  if (printed === null) return 'Nothing is printed to compare it with.'
  const off = value - printed
  const difference = `${formatDecimal(Math.abs(off), digits)} ${unit.startsWith('dB') ? 'dB' : unit}`
  if (Math.abs(off) <= Math.max(within, spread ?? 0))
    return `As printed, within ${formatDecimal(Math.max(within, spread ?? 0), digits)} ${unit.startsWith('dB') ? 'dB' : unit}.`
  const words = `${difference} ${off > 0 ? more : less} than printed`
  return better === 'neither'
    ? `${words}.`
    : `${words}: ${off > 0 === (better === 'higher') ? 'better' : 'worse'} than the maker says.`
}

/** Mean and spread of repeats: half their range; the standard deviation within it where there is but one. */
export const repeated = (
  values: readonly number[],
  scatter: number,
): { value: number; spread: number; kept: Spread } => {
  const spread = values.length > 1 ? halfRange(values) : scatter
  return { value: mean(values), spread, kept: { value: spread, is: values.length > 1 ? 'half-range' : 'sd' } }
}
