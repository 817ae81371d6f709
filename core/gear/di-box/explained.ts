import type { ExplainedTraits } from '../explained-traits'
import { figure } from '../explained-traits'
import type { Resolved } from '../stage'
import { turnsGain } from './chain'

export const diBoxExplained: ExplainedTraits<Resolved<'di-box'>> = {
  gain: ({ specs: { ratio } }) => ({
    formula: 'wire-di-box-turns-ratio-n',
    parts: [figure('ratio', 'Turns ratio', ratio, ': 1', turnsGain(ratio))],
  }),
}
