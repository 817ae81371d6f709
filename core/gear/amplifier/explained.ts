import type { ExplainedTraits } from '../explained-traits'
import { figure, gainSetting } from '../explained-traits'
import type { Resolved } from '../stage'

export const amplifierExplained: ExplainedTraits<Resolved<'amplifier'>> = {
  ceilingFormula: 'busses-amplifier',
  gain: ({ specs, gain }) => ({
    formula: 'busses-amplifier',
    parts: [figure('gain', 'Voltage gain', specs.gain, 'dB', specs.gain), gainSetting(gain, 'Knob')],
  }),
}
