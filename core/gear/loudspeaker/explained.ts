import type { ExplainedTraits } from '../explained-traits'
import { certain, figure, gainSetting, setting } from '../explained-traits'
import type { Resolved } from '../stage'

export const loudspeakerExplained: ExplainedTraits<Resolved<'loudspeaker'>> = {
  gain: ({ specs: { sensitivity, count }, settings: { distance = 1 }, gain }) => ({
    formula: 'busses-loudspeaker',
    parts: [
      figure('sensitivity', 'Sensitivity', sensitivity, 'dB SPL', sensitivity),
      gainSetting(gain, 'Knob'),
      setting('distance', 'Distance', distance, 'm', -20 * Math.log10(distance)),
      ...(count > 1 ? [certain('How many alike', count, 'times', 10 * Math.log10(count))] : []),
    ],
  }),
}
