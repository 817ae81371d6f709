import type { ExplainedTraits } from '../explained-traits'
import { gainSetting } from '../explained-traits'
import type { Resolved } from '../stage'

export const faderExplained: ExplainedTraits<Resolved<'fader'>> = {
  gain: ({ gain }) => ({ formula: 'stages-fader', parts: [gainSetting(gain, 'Fader')] }),
}
