import type { ExplainedTraits } from '../explained-traits'
import { figure, gainSetting } from '../explained-traits'
import type { Resolved } from '../stage'

export const preampExplained: ExplainedTraits<Resolved<'preamp'>> = {
  limitStatedAt: ({ specs }) => specs.gainMin,
  gain: ({ gain, settings, specs }) => ({
    formula: 'stages-preamp',
    parts: [gainSetting(gain), ...(settings.pad ? [figure('pad', 'Pad', specs.pad, 'dB', -specs.pad)] : [])],
  }),
}
