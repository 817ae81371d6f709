import type { CheckFacts } from './check-facts'

export const pitchChecks = {
  'read-rates': {
    ask: 'Read the sample rate in the host, the unit and every other digital device.',
    outcomes: { same: 'All the same', differ: 'They differ' },
    usual: { same: 0.95, differ: 0.05 },
    minutes: 1,
  },
  'one-file': {
    ask: 'Is everything off in pitch, or one file only?',
    outcomes: { all: 'Everything', one: 'One file only' },
    usual: { all: 0.5, one: 0.5 },
    minutes: 0.3,
  },
} as const satisfies Record<string, CheckFacts>
