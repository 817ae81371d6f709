import type { CheckFacts } from './check-facts'

export const feedbackChecks = {
  'mute-sends': {
    ask: 'Turn down the sends of the microphones into the loudspeakers, one at a time. When does it stop?',
    outcomes: { one: 'With one of them', several: 'Only with several', none: 'It does not stop' },
    usual: { one: 0.3, several: 0.3, none: 0.4 },
    minutes: 1,
    caution: 'Bring the loudspeakers down first; feedback is loud enough to hurt ears and drivers.',
  },
  'meant-for-room': {
    ask: 'Are all microphones that are sent to these loudspeakers meant to be heard there?',
    outcomes: { meant: 'Yes', not: 'One is not' },
    usual: { meant: 0.9, not: 0.1 },
    minutes: 0.3,
  },
  'where-it-looks': {
    ask: 'Check where the front of each microphone points.',
    outcomes: { away: 'Away from the loudspeakers', towards: 'Towards a loudspeaker' },
    usual: { away: 0.93, towards: 0.07 },
    minutes: 0.3,
  },
} as const satisfies Record<string, CheckFacts>
