import type { ExplainedTraits, StagePart } from '../explained-traits'
import { figure, noGain } from '../explained-traits'
import { loadingGain } from '../loading'
import type { Resolved } from '../stage'
import { volumeLoss } from './chain'
import { electricImpedance } from './circuit'

type Source = Resolved<'electric-source'>

export const electricSourceExplained: ExplainedTraits<Source> = {
  gain: noGain,
  level: (stage, { load }) => {
    const { level, impedance } = stage.specs
    const loading = loadingGain(electricImpedance(stage), load)
    return {
      formula: 'stages-electric-source',
      parts: [
        figure('level', 'Average, as given', level, 'dBu', level),
        ...(impedance === undefined
          ? []
          : [figure('impedance', 'Its impedance into the next input', impedance, 'Ω', loading)]),
        ...(stage.gear.output === 'passive-pickup' ? ownVolume(stage) : []),
      ],
    }
  },
}

/** What a passive volume control takes off, told by what it is known from: its circuit, or the loss as stated. */
function ownVolume({ specs }: Source): StagePart[] {
  const loss = volumeLoss(specs)
  if (loss === 0) return []
  const { volumePot, impedance } = specs
  return volumePot !== undefined && impedance !== undefined
    ? [figure('volumePot', 'Own volume, a pot of', volumePot, 'Ω', -loss)]
    : [figure('volumeLoss', 'Own volume down by', loss, 'dB', -loss)]
}
