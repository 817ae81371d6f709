import type { ExplainedTraits } from '../explained-traits'
import { figure } from '../explained-traits'
import type { Resolved } from '../stage'

export const linkExplained: ExplainedTraits<Resolved<'link'>> = {
  gain: ({ specs: { gain } }) => ({
    formula: 'stages-wireless-link',
    parts: [figure('gain', 'Gain', gain, 'dB', gain)],
  }),
}
