import type { CheckFacts } from './check-facts'

export const silenceChecks = {
  'where-it-dies': {
    ask: 'Follow the signal from meter to meter while somebody plays. Where is the first meter that does not move?',
    outcomes: {
      input: 'Already at the input',
      host: 'In the host; the unit’s own moves',
      ears: 'All move, but nothing is heard',
    },
    usual: { input: 0.34, host: 0.33, ears: 0.33 },
    minutes: 0.5,
  },
  'phantom-lamp': {
    ask: 'Check the 48 V lamp of this input.',
    outcomes: {
      on: 'On, and it is needed',
      off: 'Off, though it is needed',
      needless: 'Off, and nothing here needs 48 V',
      harmful: 'On, and something here must not get it',
    },
    usual: { on: 0.5, off: 0.02, needless: 0.47, harmful: 0.01 },
    minutes: 0.3,
    caution:
      'Before 48 V is switched on, mute the outputs. Nothing on the same switch may be harmed by it, such as an old ribbon or an unbalanced output.',
  },
  'mute-switches': {
    ask: 'Check the mute switches of the microphone, the desk and the track.',
    outcomes: { open: 'None is in', muted: 'One is in' },
    usual: { open: 0.96, muted: 0.04 },
    minutes: 0.5,
  },
  'other-input': {
    ask: 'Tap the microphone, or play, and look at the meters of all inputs. Does another one move?',
    outcomes: { elsewhere: 'Another one moves', right: 'The right one moves', none: 'None moves' },
    usual: { elsewhere: 0.03, right: 0.4, none: 0.57 },
    minutes: 0.5,
  },
  'track-armed': {
    ask: 'Look at the track: armed, with this input chosen?',
    outcomes: { armed: 'Armed, the right input', not: 'Not armed, or another input' },
    usual: { armed: 0.96, not: 0.04 },
    minutes: 0.3,
  },
  'device-chosen': {
    ask: 'Look at the host’s audio settings: is the unit chosen, and not in use by another program?',
    outcomes: { open: 'Chosen and open', taken: 'In use elsewhere, or another device chosen' },
    usual: { open: 0.96, taken: 0.04 },
    minutes: 0.5,
  },
  'speaker-volume': {
    ask: 'Check the volume of headphones and loudspeakers, and their power lamps.',
    outcomes: { up: 'Up, and on', down: 'Down or off' },
    usual: { up: 0.96, down: 0.04 },
    minutes: 0.3,
    caution: 'Start from low: turn it up slowly with the sound playing. Amplifiers on last, off first.',
  },
  'output-socket': {
    ask: 'Follow the cable from the headphones or loudspeakers back: is it in the output that the host plays to?',
    outcomes: { right: 'The right output', other: 'Another output' },
    usual: { right: 0.96, other: 0.04 },
    minutes: 0.5,
  },
} as const satisfies Record<string, CheckFacts>
