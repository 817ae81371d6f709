import { formatDecimal } from '../units'

/** A chance as a sentence has it: two digits that count, and never a certainty. */
export function formatChance(chance: number): string {
  const percent = 100 * chance
  if (percent < 0.01) return 'under 0.01 %'
  if (percent > 99.9) return 'over 99.9 %'
  return `${formatDecimal(percent, percent < 1 ? 2 : percent < 10 ? 1 : 0)} %`
}

/** ± of a figure: twice its standard uncertainty, which holds it with 95 %. */
export const giveOrTake = (u: number, digits = 1): string => `± ${formatDecimal(2 * u, digits)}`
