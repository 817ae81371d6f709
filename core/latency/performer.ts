import type { Listening, Performer } from '../model'

/** What a kind of listening notices, and how it is called. */
export interface ListeningKind {
  readonly words: string
  /** ms; the latest that goes unnoticed by most. */
  readonly limit: number
  readonly why: string
}

/**
 * Limits by what is listened to. The voice's and the plucked strings' are common practice; the others follow published
 * listening tests (Lester and Boley, AES 123rd Convention, 2007; from memory). All are starting points to be edited.
 */
export const listeningKinds: Readonly<Record<Listening, ListeningKind>> = {
  'own-voice': { words: 'own voice', limit: 5, why: 'it mixes with bone conduction in the head' },
  'wind': { words: 'wind instrument', limit: 6, why: 'it is also heard through the head' },
  'plucked': { words: 'plucked strings', limit: 8, why: 'some players feel 4 to 8 ms' },
  'drums': { words: 'drums', limit: 10, why: 'the stroke is felt in the hands' },
  'keys': { words: 'keys', limit: 15, why: 'the sound is not heard otherwise' },
  'click-only': { words: 'click and playback only', limit: 50, why: 'the performer hears no own signal late' },
}

/** Taken where a strip says nothing of its performer. */
const UNKNOWN: Performer = { listensTo: 'plucked' }

export const performerLimit = (performer: Performer | undefined): number =>
  performer?.limit ?? listeningKinds[(performer ?? UNKNOWN).listensTo].limit
