/** ln 10 / 10: the exponential is several times as fast as a power of ten, and an evaluation takes dozens. */
const PER_DB = Math.LN10 / 10

/** Power of a level in dB, relative to the level's reference: 10^(L/10). */
export const power = (level: number): number => Math.exp(level * PER_DB)

/**
 * Level of unrelated sounds or noises together: 10 lg Σ 10^(L/10). Two equal ones: +3.01 dB.
 * @returns `null` for an empty list: no noise at all has no level.
 */
export function powerSum(sounds: readonly { readonly level: number }[]): number | null {
  let total = 0
  for (const { level } of sounds) total += power(level)
  return sounds.length === 0 ? null : 10 * Math.log10(total)
}

/**
 * What is left of a level when a part of it is taken out: 10 lg(10^(whole/10) − 10^(part/10)).
 * @returns `null` where the part is not below the whole: nothing is left.
 */
export function powerDifference(whole: number, part: number): number | null {
  const rest = power(whole) - power(part)
  return rest > 0 ? 10 * Math.log10(rest) : null
}
