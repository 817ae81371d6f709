import type { ExplainedTraits } from '../explained-traits'
import { figure, noGain } from '../explained-traits'
import type { Resolved } from '../stage'

export const playbackExplained: ExplainedTraits<Resolved<'playback'>> = {
  gain: noGain,
  level: ({ specs: { level } }) => ({
    formula: 'levels-dbfs',
    parts: [figure('level', 'Average, as given', level, 'dBFS', level)],
  }),
}
