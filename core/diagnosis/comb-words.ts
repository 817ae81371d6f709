/** How a sound heard twice sounds, by how far the two are apart. */
export interface CombWords {
  /** What is heard. */
  sound: string
  /** How strongly, from the ripple. */
  strength: 'hardly audible' | 'coloured' | 'clearly audible'
}

/** Delays from which a doubled sound is heard in another way, ms (common practice, no source). */
const KINDS: readonly { below: number; sound: string }[] = [
  { below: 1, sound: 'thin and nasal: the notches are in the midrange and the treble' },
  { below: 3, sound: 'hollow, as through a tube: the first notch thins out the midrange' },
  { below: 15, sound: 'hollow: the first notch thins out the body, and the colour changes with every note' },
  { below: 40, sound: 'doubled and smeared: not yet two sounds, consonants blur' },
]
const ECHO = 'doubled, with an audible echo'

/** Ripple from which it is heard, dB (common practice, no source). */
const COLOURED = 2
const PLAIN = 6

export function combWords(delayMs: number, ripple: number): CombWords {
  return {
    sound: KINDS.find((kind) => delayMs < kind.below)?.sound ?? ECHO,
    strength: ripple < COLOURED ? 'hardly audible' : ripple < PLAIN ? 'coloured' : 'clearly audible',
  }
}
