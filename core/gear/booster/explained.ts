import type { ExplainedTraits } from '../explained-traits'
import { figure } from '../explained-traits'
import type { Resolved } from '../stage'

export const inlinePreampExplained: ExplainedTraits<Resolved<'booster'>> = {
  gain: ({ specs: { gain } }) => ({
    formula: 'stages-inline-preamp',
    parts: [figure('gain', 'Gain', gain, 'dB', gain)],
  }),
}
