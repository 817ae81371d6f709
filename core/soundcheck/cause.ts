import { isSourceGear, isMicrophone } from '../gear'
import type { Session } from '../session'
import type { UncertainInput } from '../uncertainty/input'

/** What may be behind a reading that is not as planned. */
export type Cause = 'source' | 'microphone' | 'placing' | 'gain'

/** Which of them an input is: how loud it is played, how sensitive the microphone, how near, or what the gains truly give. */
export function causeOf(session: Session, { place }: UncertainInput): Cause {
  if (place.in === 'strip') return place.setting === 'distance' ? 'placing' : 'gain'
  if (place.in !== 'gear') return 'placing'
  const box = session.gear.find(({ id }) => id === place.gear)
  if (box && isSourceGear(box)) return 'source'
  return isMicrophone(box) && place.port === undefined ? 'microphone' : 'gain'
}

/** As it is said: "most likely the source". */
export const causeWords: Record<Cause, string> = {
  source: 'the source',
  microphone: 'the microphone',
  placing: 'the distance',
  gain: 'the gain',
}
