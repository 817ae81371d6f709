import type { MillivoltsPerPascal } from '../../units'
import type { ExplainedTraits, StagePart } from '../explained-traits'
import { certain, figure, gainSetting } from '../explained-traits'
import { loadingGain } from '../loading'
import type { ResolvedMicrophone } from '../stage'
import { directivity, ONE_PASCAL, sensitivityGain } from './chain'

export const microphoneExplained: ExplainedTraits<ResolvedMicrophone> = {
  ceilingFormula: 'wire-its-ceiling',
  gain: (stage, { load }) => {
    const { impedance, digitalSensitivity, gainMin = 0 } = stage.specs
    const axis = directivity(stage)?.programme ?? 0
    const turned: StagePart[] = axis === 0 ? [] : [certain('Off axis', axis, 'dB', axis)]
    if (digitalSensitivity !== undefined) {
      const adds = digitalSensitivity - ONE_PASCAL
      return {
        formula: 'wire-microphone-digital',
        parts: [
          figure('digitalSensitivity', 'Level at 94 dB SPL', digitalSensitivity, 'dBFS', adds),
          ...(stage.settings.gain === undefined ? [] : [gainSetting(stage.gain, 'Gain', stage.gain - gainMin)]),
          ...turned,
        ],
      }
    }
    // The session was read: without a converter of its own it has a sensitivity.
    const sensitivity = stage.specs.sensitivity as MillivoltsPerPascal
    return {
      formula: 'wire-microphone-open-circuit',
      parts: [
        figure('sensitivity', 'Sensitivity', sensitivity, 'mV/Pa', sensitivityGain(sensitivity)),
        ...(load === undefined || impedance === undefined
          ? []
          : [
              figure('impedance', 'Its impedance into the next input', impedance, 'Ω', loadingGain(impedance, load)),
              certain('That input', load, 'Ω', 0),
            ]),
        ...turned,
      ],
    }
  },
}
