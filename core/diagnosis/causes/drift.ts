import { isSoundSource } from '../../gear'
import { formatDecimal } from '../../units'
import type { Cause } from '../cause'
import { says } from '../cause'

export const automaticGain: Cause = {
  title: 'The system or the unit changes the level by itself',
  prior: 9,
  symptoms: { 'level-drifts': 0.9 },
  shows: { 'floor-as-planned': { higher: 0.6, lower: 0.3 }, 'enhancements': { on: 0.96 } },
  byHand:
    'Switch automatic gain, noise suppression and “enhancements” of this input off, in the system and in the program.',
  after: 'Set the gain again: it was measured with another one.',
}

export const callLowering: Cause = {
  title: 'The system lowers everything during calls',
  prior: 5,
  symptoms: { 'level-drifts': 0.8 },
  when: { changed: 0.8 },
  shows: { 'during-calls': { yes: 0.95 } },
  byHand: 'Set the system’s reaction to calls to “do nothing”, close telephone programs, and switch notifications off.',
  after: 'Let somebody call once while it plays.',
}

export const performerMoves: Cause = {
  title: 'The performer moves',
  prior: 8,
  symptoms: { 'level-drifts': 0.7 },
  shows: { 'watch-performer': { moves: 0.95 } },
  evidence: (view) => {
    const from = view.stages[0]
    if (!isSoundSource(from))
      return [says('The strip starts with an electrical source: distance does not matter.', 0.03)]
    const step = 20 * Math.log10(4 / 3)
    return [
      says(
        `At ${formatDecimal(from.distance, 2)} m a third farther is ${formatDecimal(step, 1)} dB less.`,
        from.distance < 0.5 ? 2 : 0.8,
      ),
    ]
  },
  byHand:
    'Mark the place, put something at the mouth’s height to keep the distance, or go a little farther away, where a step matters less.',
  after: 'Set the gain again for that distance.',
}
