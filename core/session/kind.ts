import type { GearKind } from './gear'

/** Where a signal can be: in air, on a wire, in numbers. */
export type Domain = 'sound' | 'analogue' | 'digital'

export interface KindTraits {
  /** What it is called in a sentence. */
  readonly word: string
  readonly name: string
  /** The domain it takes its signal from; `null` for a source. */
  readonly takes: Domain | null
  readonly gives: Domain
}

export const kindTraits: Readonly<Record<GearKind, KindTraits>> = {
  'sound-source': { word: 'sound source', name: 'a sound source', takes: null, gives: 'sound' },
  'microphone': { word: 'microphone', name: 'a microphone', takes: 'sound', gives: 'analogue' },
  'interface': { word: 'interface input', name: 'an interface', takes: 'analogue', gives: 'digital' },
}
