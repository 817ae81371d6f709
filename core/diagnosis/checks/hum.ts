import type { CheckFacts } from './check-facts'
import { CURE, STAYS } from './check-facts'

export const humChecks = {
  'on-battery': {
    ask: 'Unplug the power supply from the computer and run it on battery. Does the hum go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 0.5,
    caution:
      'Only the low-voltage plug at the computer. Never lift a protective earth, never tape over an earth pin: it is there for your life. Leave the inside of devices and walls to a qualified person; local rules come first.',
  },
  'balanced-lead': {
    ask: 'Replace the cable by a short or a balanced one. Does it change clearly?',
    outcomes: { changes: 'It changes clearly', same: 'No change' },
    usual: { changes: 0.04, same: 0.96 },
    minutes: 2,
    caution: 'Monitors down while cables are moved.',
  },
  'earth-lift': {
    ask: 'Flip the earth-lift switch of the DI box. Does the hum go away?',
    outcomes: { goes: 'It goes', stays: 'It stays', none: 'There is no DI box with such a switch' },
    usual: { goes: 0.03, stays: 0.3, none: 0.67 },
    minutes: 0.3,
    caution: 'The switch of the signal’s earth only. Never the mains earth.',
  },
  'turn-the-pickup': {
    ask: 'Turn the instrument or microphone by 90°, and move it away from power supplies and lamps. Does the hum change?',
    outcomes: { changes: 'It changes clearly', same: 'No change' },
    usual: { changes: 0.05, same: 0.95 },
    minutes: 0.5,
  },
  'hum-lines': {
    ask: 'Record ten seconds in which nobody plays and drop the file here, or look at its spectrum. Which lines stand out?',
    outcomes: {
      none: 'None',
      alone: '50 or 60 Hz by itself',
      odd: 'It and its odd multiples (150, 250 or 180, 300 Hz)',
      even: '100 or 120 Hz and its multiples',
    },
    usual: { none: 0.85, alone: 0.05, odd: 0.05, even: 0.05 },
    minutes: 2,
  },
} as const satisfies Record<string, CheckFacts>
