import type { CheckFacts } from './check-facts'

export const unitChecks = {
  'other-cable': {
    ask: 'Use another USB cable that is known to carry data. Is the unit detected?',
    outcomes: { seen: 'It is detected', same: 'Still not' },
    usual: { seen: 0.03, same: 0.97 },
    minutes: 1,
  },
  'as-storage': {
    ask: 'Does a drive appear instead?',
    outcomes: { drive: 'A drive appears', none: 'Nothing does' },
    usual: { drive: 0.05, none: 0.95 },
    minutes: 0.3,
  },
  'firmware': {
    ask: 'Compare the unit’s firmware with the version the driver needs.',
    outcomes: { current: 'They match', old: 'Too old, or in update mode' },
    usual: { current: 0.94, old: 0.06 },
    minutes: 1,
    caution: 'Never cut the power while firmware is written.',
  },
} as const satisfies Record<string, CheckFacts>
