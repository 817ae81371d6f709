import { normalChance } from '../numeric/laws'

/** The chance that a level passes what is that far over it, Φ(−z), z = headroom/u. Example: 13.49 dB, u 3.79: 0.018 %. */
export const chanceOver = (headroom: number, u: number): number =>
  u > 0 ? normalChance(-headroom / u) : headroom < 0 ? 1 : 0
