/** What happens to material of one rate that is clocked at another. */
export interface RateMismatch {
  /** How much longer it plays, %; negative: shorter. */
  longer: number
  /** Pitch, semitones; negative: flat. */
  semitones: number
}

/** Example: 48 kHz material clocked at 44.1 kHz plays 8.84 % longer and 1.47 semitones flat. */
export const rateMismatch = (material: number, clock: number): RateMismatch => ({
  longer: 100 * (material / clock - 1),
  semitones: 12 * Math.log2(clock / material),
})
