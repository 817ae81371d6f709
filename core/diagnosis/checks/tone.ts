import type { CheckFacts } from './check-facts'

export const toneChecks = {
  'flip-polarity': {
    ask: 'With both microphones open, flip the polarity of one. Is it fuller?',
    outcomes: { fuller: 'Fuller', thinner: 'Thinner, or no change', none: 'There is one microphone only' },
    usual: { fuller: 0.04, thinner: 0.46, none: 0.5 },
    minutes: 0.3,
  },
  'one-microphone': {
    ask: 'Mute one of two microphones that hear the same source. Is it fuller?',
    outcomes: { fuller: 'Fuller', same: 'No change', none: 'There is one microphone only' },
    usual: { fuller: 0.06, same: 0.44, none: 0.5 },
    minutes: 0.3,
  },
  'microphone-side': {
    ask: 'Look for the mark on the microphone, and speak at it from that side. Is it brighter and fuller?',
    outcomes: { brighter: 'Yes', same: 'It was right', none: 'There is no microphone' },
    usual: { brighter: 0.04, same: 0.7, none: 0.26 },
    minutes: 0.3,
  },
  'short-lead': {
    ask: 'Replace the cable of the instrument by a short one. Is it brighter?',
    outcomes: { brighter: 'Brighter', same: 'No change' },
    usual: { brighter: 0.04, same: 0.96 },
    minutes: 1,
    caution: 'Monitors down while cables are moved.',
  },
} as const satisfies Record<string, CheckFacts>
