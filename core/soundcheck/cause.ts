import type { Session } from '../model'
import type { UncertainInput } from '../uncertainty/input'

/** What may be behind a reading that is not as planned. */
export type Cause = 'source' | 'microphone' | 'placing' | 'gain'

const SOURCES: ReadonlySet<string> = new Set(['sound-source', 'electric-source', 'playback'])

/** Which of them an input is: how loud it is played, how sensitive the microphone, how near, or what the gains truly give. */
export function causeOf(session: Session, { place }: UncertainInput): Cause {
  if (place.in === 'strip') return place.setting === 'distance' ? 'placing' : 'gain'
  if (place.in !== 'gear') return 'placing'
  const kind = session.gear.find(({ id }) => id === place.gear)?.kind ?? ''
  if (SOURCES.has(kind)) return 'source'
  return kind === 'microphone' && place.port === undefined ? 'microphone' : 'gain'
}

/** As it is said: "most likely the source". */
export const causeWords: Record<Cause, string> = {
  source: 'the source',
  microphone: 'the microphone',
  placing: 'the distance',
  gain: 'the gain',
}
