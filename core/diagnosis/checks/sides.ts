import type { CheckFacts } from './check-facts'
import { CURE, STAYS } from './check-facts'

export const sidesChecks = {
  'look-at-track': {
    ask: 'Look at the track: is it mono or stereo, and where is its pan?',
    outcomes: {
      centred: 'Mono, in the middle',
      stereo: 'A stereo track, one input',
      panned: 'Mono, panned to one side',
    },
    usual: { centred: 0.93, stereo: 0.04, panned: 0.03 },
    minutes: 0.3,
  },
  'file-channels': {
    ask: 'Look at the recording: are both channels alike?',
    outcomes: { both: 'Both are there', empty: 'One is empty' },
    usual: { both: 0.95, empty: 0.05 },
    minutes: 0.5,
  },
  'plug-home': {
    ask: 'Push the headphone or loudspeaker plug fully in, or try another pair. Are both sides there?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 0.5,
    caution: 'Volume down while plugs are moved.',
  },
  'balance-control': {
    ask: 'Check the balance controls of the unit, the headphone amplifier and the system.',
    outcomes: { centred: 'All in the middle', off: 'One is off centre' },
    usual: { centred: 0.97, off: 0.03 },
    minutes: 0.3,
  },
} as const satisfies Record<string, CheckFacts>
