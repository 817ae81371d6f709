/** How a sound heard twice sounds, by how far the two are apart. */
export interface CombWords {
  /** What is heard. */
  sound: string
  /** How strongly, from the ripple. */
  strength: 'hardly heard' | 'coloured' | 'plainly heard'
}

/** Delays from which a doubled sound is heard in another way, ms (common practice, no source). */
const KINDS: readonly { below: number; sound: string }[] = [
  { below: 1, sound: 'thin and nasal: the notches lie in the middle and the treble' },
  { below: 3, sound: 'hollow, as through a tube: the first notch takes the middle out' },
  { below: 15, sound: 'hollow: the first notch takes the body out, and every pitch sounds with another colour' },
  { below: 40, sound: 'doubled and smeared: the two are not yet apart, consonants blur' },
]
const ECHO = 'twice: the second one is heard as an echo'

/** Ripple from which it is heard, dB (common practice, no source). */
const COLOURED = 2
const PLAIN = 6

export function combWords(delayMs: number, ripple: number): CombWords {
  return {
    sound: KINDS.find((kind) => delayMs < kind.below)?.sound ?? ECHO,
    strength: ripple < COLOURED ? 'hardly heard' : ripple < PLAIN ? 'coloured' : 'plainly heard',
  }
}
