import type { ExplainedTraits } from '../explained-traits'
import { figure, noGain } from '../explained-traits'
import { loadingGain } from '../loading'
import type { Resolved } from '../stage'

export const electricSourceExplained: ExplainedTraits<Resolved<'electric-source'>> = {
  gain: noGain,
  level: ({ specs: { level, impedance, volumeLoss = 0 }, gear: { output } }, { load }) => ({
    formula: 'stages-electric-source',
    parts: [
      figure('level', 'Average, as given', level, 'dBu', level),
      ...(impedance === undefined
        ? []
        : [figure('impedance', 'Its impedance into the next input', impedance, 'Ω', loadingGain(impedance, load))]),
      ...(output !== 'passive-pickup' || volumeLoss === 0
        ? []
        : [figure('volumeLoss', 'Own volume down by', volumeLoss, 'dB', -volumeLoss)]),
    ],
  }),
}
