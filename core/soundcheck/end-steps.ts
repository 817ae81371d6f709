import { isPlayback } from '../gear'
import { recommendationFor } from '../latency/recommend'
import { formatShort } from '../units'
import { isBus } from '../model'
import type { Sheet } from './sheet'
import type { Instruction } from './step'
import { instruction } from './step'

/** Rate and buffer, then one way of hearing for each performer. */
export function timingSteps({ session, units, channels }: Sheet): Instruction[] {
  if (units.length === 0) return []
  const { sampleRate, bufferFrames } = session.system
  return [
    instruction({
      id: 'timing.rate',
      group: 'timing',
      title: `${formatShort(sampleRate / 1000)} kHz, still the same everywhere`,
      detail: 'A program started since may have changed it.',
    }),
    instruction({
      id: 'timing.buffer',
      group: 'timing',
      title: `Buffer: ${bufferFrames} frames`,
      detail: 'Run it for a minute with everything the take needs: no crackle, no gap.',
    }),
    ...channels
      .filter(({ stages }) => !isPlayback(stages[0]))
      .map(({ strip }) => {
        const direct = strip.monitor.route === 'direct'
        const best = recommendationFor(session, strip)
        const other = best && best.route !== strip.monitor.route ? ` Recommended: ${best.reason}` : ''
        return instruction({
          id: `${strip.id}.monitoring`,
          group: 'timing',
          strip: strip.id,
          title: `${strip.name} listens by ${direct ? 'direct' : 'software'} monitoring only`,
          detail: `${
            direct
              ? 'The host’s input monitoring is off for this track; otherwise the signal doubles.'
              : 'Direct monitoring in the unit is down for this input; otherwise the signal doubles.'
          }${other}`,
          // What is recommended changes with rate and load; the step does not.
          holds: strip.monitor.route,
        })
      }),
  ]
}

/** Headphones up, one after the other. */
export function headphoneSteps({ session, channels }: Sheet): Instruction[] {
  return channels
    .filter(({ strip }) => !isBus(strip) && (strip.monitor.headphones ?? strip.monitor.output) !== undefined)
    .map(({ strip }) => {
      const name = session.gear.find(({ id }) => id === strip.monitor.headphones)?.name ?? 'the headphones'
      const volume = strip.monitor.volume
      return instruction({
        id: `${strip.id}.headphones`,
        group: 'headphones',
        strip: strip.id,
        title: `${name} up for ${strip.name}`,
        detail:
          volume === undefined
            ? 'Slowly up from minimum, until it is loud enough.'
            : `From fully down, slowly, to ${formatShort(volume, 1)} dB.`,
        caution:
          'Down before they go on; put them on with the volume down. Loud listening harms hearing: local rules and a qualified person decide.',
      })
    })
}

/** The end: everything as it stands goes into a mark. */
export const recallSteps = (): Instruction[] => [
  instruction({
    id: 'recall.mark',
    group: 'recall',
    title: 'Add a mark',
    detail:
      'Every control as set, including those at zero, with firmware, who and when, so that you can restore it in minutes.',
  }),
]
