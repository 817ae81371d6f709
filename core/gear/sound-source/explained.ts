import type { ExplainedTraits } from '../explained-traits'
import { certain, figure, noGain, setting } from '../explained-traits'
import { nearGain } from './chain'
import type { ResolvedSource } from './stage'

export const soundSourceExplained: ExplainedTraits<ResolvedSource> = {
  gain: noGain,
  level: ({ distance, specs, gear: { size } }) => ({
    formula: size === undefined ? 'levels-inverse-distance' : 'levels-near-a-source-of-some-size',
    parts: [
      figure('level', 'Average, as given', specs.level, 'dB SPL', specs.level),
      certain('Given at', specs.distance, 'm', 0),
      setting('distance', 'Distance to the capsule', distance, 'm', nearGain(specs.distance, distance, size)),
    ],
  }),
}
