import type { ExplainedTraits } from '../explained-traits'
import { gainSetting } from '../explained-traits'
import type { Resolved } from '../stage'

export const processorExplained: ExplainedTraits<Resolved<'processor'>> = {
  gain: ({ gain }) => ({ formula: 'stages-processor', parts: [gainSetting(gain, 'Output gain')] }),
}
