import type { ExplainedTraits } from '../explained-traits'
import { figure } from '../explained-traits'
import type { Resolved } from '../stage'

export const padExplained: ExplainedTraits<Resolved<'pad'>> = {
  gain: ({ specs: { loss } }) => ({ formula: 'wire-pad', parts: [figure('loss', 'Loss', loss, 'dB', -loss)] }),
}
