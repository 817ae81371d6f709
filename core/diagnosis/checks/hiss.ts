import type { CheckFacts } from './check-facts'
import { EARS, CURE, STAYS } from './check-facts'

export const hissChecks = {
  'follow-hiss': {
    ask: 'With nobody playing, turn each gain down by 6 dB and back, from the source on. Which one changes the hiss most?',
    outcomes: { first: 'The first gain', late: 'A later gain', slider: 'The system’s slider', none: 'None of them' },
    usual: { first: 0.3, late: 0.05, slider: 0.02, none: 0.63 },
    minutes: 2,
    caution: EARS,
  },
  'cover-microphone': {
    ask: 'Switch the microphone off at its own switch, or shut it in its case, wrapped in a coat. Does the noise go away?',
    outcomes: CURE,
    usual: STAYS,
    minutes: 1,
    caution: 'Never unplug a microphone while 48 V is on and the outputs are open.',
  },
  'source-volume': {
    ask: 'Check the source’s own volume. Is it fully up?',
    outcomes: { up: 'Fully up, or it has none', down: 'Turned down' },
    usual: { up: 0.95, down: 0.05 },
    minutes: 0.3,
    caution: 'Turn the gain behind it down before turning it up.',
  },
  'bypass-dynamics': {
    ask: 'Bypass every compressor, gate and expander. Does it change?',
    outcomes: { changes: 'It changes clearly', same: 'No change, or there are none' },
    usual: { changes: 0.05, same: 0.95 },
    minutes: 1,
    caution: 'A bypassed limiter no longer holds peaks back: monitors down first.',
  },
} as const satisfies Record<string, CheckFacts>
