import type { CheckFacts } from './check-facts'
import { CURE, STAYS } from './check-facts'

export const twiceAndLateChecks = {
  'mute-host': {
    ask: 'Switch the host’s input monitoring of this track off, and keep the direct sound. What is left?',
    outcomes: { once: 'One sound, full', same: 'Nothing changes', silent: 'Silence' },
    usual: { once: 0.04, same: 0.5, silent: 0.46 },
    minutes: 0.3,
  },
  'how-far-apart': {
    ask: 'Clap once. How far apart are the two?',
    outcomes: { hollow: 'One sound, hollow', apart: 'Two claps, close together', seconds: 'A second or more' },
    usual: { hollow: 0.4, apart: 0.55, seconds: 0.05 },
    minutes: 0.3,
  },
  'comb-in-file': {
    ask: 'Is the second sound in the recording too? Listen to the file, or drop it here.',
    outcomes: { clean: 'The recording is clean', comb: 'It is in the recording' },
    usual: { clean: 0.9, comb: 0.1 },
    minutes: 1,
  },
  'mute-return': {
    ask: 'Mute the desk’s channels that the computer returns on. Does the second sound go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 0.5,
  },
  'mute-loudspeakers': {
    ask: 'Turn down every loudspeaker that plays this sound. Does it go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 0.5,
  },
  'listen-direct': {
    ask: 'Listen direct, inside the unit, not through the host. Is it still late?',
    outcomes: { goes: 'No longer late', stays: 'Still late', none: 'The unit has no direct monitoring' },
    usual: { goes: 0.5, stays: 0.4, none: 0.1 },
    minutes: 0.5,
  },
  'halve-buffer': {
    ask: 'Set the buffer to half. Is it clearly earlier?',
    outcomes: { earlier: 'Clearly earlier', same: 'Hardly any difference' },
    usual: { earlier: 0.1, same: 0.9 },
    minutes: 1,
  },
  'headphones-instead': {
    ask: 'Listen by headphones on a cable, not by a loudspeaker. Is it still late?',
    outcomes: { goes: 'No longer late', stays: 'Still late' },
    usual: STAYS,
    minutes: 0.5,
    caution: 'Volume down before headphones go on.',
  },
  'cable-instead': {
    ask: 'Replace the wireless link by a cable. Is it still late?',
    outcomes: { goes: 'No longer late', stays: 'Still late, or there is no such link' },
    usual: STAYS,
    minutes: 2,
  },
} as const satisfies Record<string, CheckFacts>
