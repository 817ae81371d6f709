import type { CheckFacts } from './check-facts'
import { CURE, STAYS } from './check-facts'

export const dropoutsChecks = {
  'look-at-gaps': {
    ask: 'Look closely at a crackle in the waveform, or drop the recording here. What is it?',
    outcomes: { none: 'Nothing visible', gap: 'A gap', repeat: 'A repeated piece', jump: 'A jump, nothing missing' },
    usual: { none: 0.9, gap: 0.03, repeat: 0.02, jump: 0.05 },
    minutes: 1,
  },
  'double-buffer': {
    ask: 'Set the buffer to twice its size. Do the crackles stop, or does the delay get shorter?',
    outcomes: { goes: 'The crackles stop', stays: 'No improvement' },
    usual: STAYS,
    minutes: 1,
  },
  'other-programs': {
    ask: 'Close every other program and switch wireless networks off for a minute. Do the crackles stop?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 2,
  },
  'which-driver': {
    ask: 'Check which driver the host uses.',
    outcomes: {
      exclusive: 'The maker’s own, exclusive',
      generic: 'A generic or shared one',
      none: 'The unit is not in the list',
    },
    usual: { exclusive: 0.85, generic: 0.14, none: 0.01 },
    minutes: 0.5,
  },
  'other-port': {
    ask: 'Plug the unit into another port of the computer itself, without a hub, by a short cable. Does it go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 2,
    caution: 'Monitors down while a unit is unplugged.',
  },
  'count-ticks': {
    ask: 'Count the crackles for a minute. How do they come?',
    outcomes: {
      random: 'At random',
      regular: 'Regularly, even when nothing plays',
      switched: 'When something is switched in the building',
    },
    usual: { random: 0.92, regular: 0.05, switched: 0.03 },
    minutes: 1,
  },
  'clock-lock': {
    ask: 'Check the clock settings of all digital units.',
    outcomes: { one: 'One gives the clock, the others show lock', several: 'Several run on their own, or no lock' },
    usual: { one: 0.97, several: 0.03 },
    minutes: 1,
  },
} as const satisfies Record<string, CheckFacts>
