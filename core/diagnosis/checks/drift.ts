import type { CheckFacts } from './check-facts'

export const driftChecks = {
  'enhancements': {
    ask: 'Open the system’s settings of this input: is automatic gain, noise suppression or an “enhancement” on?',
    outcomes: { off: 'All off', on: 'One is on' },
    usual: { off: 0.94, on: 0.06 },
    minutes: 1,
  },
  'during-calls': {
    ask: 'Does it happen when a call, a message or a notification comes in?',
    outcomes: { yes: 'Yes', no: 'No' },
    usual: { yes: 0.03, no: 0.97 },
    minutes: 0.3,
  },
  'watch-performer': {
    ask: 'Watch the performer’s distance to the microphone for a minute.',
    outcomes: { moves: 'It moves by a third or more', still: 'It stays' },
    usual: { moves: 0.06, still: 0.94 },
    minutes: 1,
  },
} as const satisfies Record<string, CheckFacts>
