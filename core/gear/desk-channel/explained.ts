import type { ExplainedTraits } from '../explained-traits'
import { figure, gainSetting, setting } from '../explained-traits'
import type { Resolved } from '../stage'

export const deskChannelExplained: ExplainedTraits<Resolved<'desk-channel'>> = {
  limitStatedAt: ({ specs }) => specs.gainMin,
  gain: ({ gain, settings: { pad, tap, fader = 0 }, specs }) => ({
    formula: 'stages-desk-channel',
    parts: [
      gainSetting(gain),
      ...(pad ? [figure('pad', 'Pad', specs.pad, 'dB', -specs.pad)] : []),
      ...(tap === 'pre' ? [] : [setting('fader', 'Fader', fader, 'dB', fader)]),
    ],
  }),
}
