import { isMicrophone, isSoundSource } from '../../gear'
import { directivity } from '../../gear/microphone/chain'
import { formatDecimal, formatShort, formatSigned } from '../../units'
import type { Cause } from '../cause'
import { says } from '../cause'
import { dB, evidenceOf, has, fixesOf, microphoneOf, pickupOf, turn } from './common'
import { trebleCut } from '../treble'

const LOADED = ['loading', 'instrument-into-mic'] as const

export const pickupLoaded: Cause = {
  title: 'The input loads the pickup',
  prior: 7,
  symptoms: { 'thin': 0.9, 'too-quiet': 0.4 },
  codes: [...LOADED],
  shows: { 'which-socket': { hot: 0.45, cold: 0.45, fits: 0.1 } },
  present: (view) => has(view, ...LOADED),
  evidence: (view) => {
    if (has(view, ...LOADED)) return evidenceOf(view, LOADED, 20)
    return pickupOf(view)
      ? [says('The input is high enough for the pickup, as the session has it.', 0.1)]
      : [says('There is no pickup in this strip.', 0.05)]
  },
  fixes: (view) => fixesOf(view, LOADED),
  byHand: 'Plug it into an instrument input of about 1 MΩ, or into a DI box.',
  after: 'Set the gain again: the level has changed.',
}

const DULL = ['treble-in-lead'] as const

export const trebleInLead: Cause = {
  title: 'The treble is lost in a long cable',
  prior: 5,
  symptoms: { thin: 0.85 },
  codes: [...DULL],
  shows: { 'short-lead': { brighter: 0.96 }, 'which-socket': { fits: 0.97 } },
  present: (view) => has(view, ...DULL),
  evidence: (view) => {
    if (has(view, ...DULL)) return evidenceOf(view, DULL, 12)
    const cut = trebleCut(view.stages)
    if (!cut) return [says('There is no cable of a known length behind an instrument in this strip.', 0.3)]
    return [
      says(
        `${formatShort(cut.length)} m of cable behind “${cut.name}” change the treble at 5 kHz by ${formatSigned(-cut.loss, 1)} dB.`,
        0.3,
      ),
    ]
  },
  fixes: (view) => fixesOf(view, DULL),
  byHand: 'Use a short cable, or a DI box near the instrument and a balanced cable behind it.',
  after: 'Listen to the brightest notes.',
  caution: 'Monitors down while cables are moved.',
}

export const twoMicrophones: Cause = {
  title: 'Two microphones hear one source at different distances',
  prior: 6,
  symptoms: { thin: 0.8, echo: 0.15 },
  shows: { 'comb-in-file': { comb: 0.9 }, 'one-microphone': { fuller: 0.95 }, 'flip-polarity': { thinner: 0.9 } },
  evidence: (view) => {
    const source = view.stages[0]
    const others = view.all.strips.filter(
      ({ strip, stages }) =>
        strip.id !== view.strip.id && stages[0]?.gear.id === source?.gear.id && stages[0] !== undefined,
    )
    const [other] = others
    if (!isSoundSource(source)) return [says('The strip starts with an electrical source.', 0.05)]
    if (!isSoundSource(other?.stages[0])) return [says('One strip only has this source, as the session has it.', 0.4)]
    const apart = Math.abs(other.stages[0].distance - source.distance)
    return [
      says(
        `“${other.strip.name}” hears the same source ${formatDecimal(apart, 2)} m apart: ${formatDecimal((1000 * apart) / 343, 2)} ms.`,
        apart > 0.05 ? 8 : 2,
      ),
    ]
  },
  byHand: 'Use one of the two, or bring them to the same distance, or keep the second three times as far away.',
  after: 'Listen in mono.',
}

export const polarityFlipped: Cause = {
  title: 'One of two has inverted polarity',
  prior: 5,
  symptoms: { 'thin': 0.85, 'one-side': 0.05 },
  shows: { 'flip-polarity': { fuller: 0.96 }, 'one-microphone': { fuller: 0.9 } },
  evidence: (view) => {
    const source = view.stages[0]?.gear.id
    const twin = view.all.strips.some(
      ({ strip, stages }) => strip.id !== view.strip.id && stages[0]?.gear.id === source,
    )
    const paired = view.session.pairs?.some(({ left, right }) => left === view.strip.id || right === view.strip.id)
    return twin || paired
      ? [says('Two strips carry one sound.', 3)]
      : [says('One strip only has this source, as the session has it.', 0.3)]
  },
  byHand: 'Flip the polarity of one of the two, and find the cable or switch that turned it.',
  after: 'Listen in mono: it must be fuller.',
}

export const offAxis: Cause = {
  title: 'Off the microphone’s axis, or at its wrong side',
  prior: 6,
  symptoms: { 'thin': 0.85, 'too-quiet': 0.4 },
  codes: ['off-axis', 'low-cut'],
  shows: { 'microphone-side': { brighter: 0.96 } },
  present: (view) => has(view, 'off-axis'),
  evidence: (view) => {
    const microphone = microphoneOf(view)
    if (!isMicrophone(microphone)) return [says('There is no microphone in this strip.', 0)]
    if (has(view, 'off-axis')) return evidenceOf(view, ['off-axis'], 15)
    const lost = -(directivity(microphone)?.programme ?? 0)
    return lost > 0 ? [says(`“${microphone.gear.name}” takes ${dB(lost)} less from there.`, 0.5)] : []
  },
  fixes: (view) => {
    const microphone = microphoneOf(view)
    return microphone
      ? [{ says: 'Turn its front to the source.', changes: [turn(view, microphone.id, 'angle', 0)] }]
      : []
  },
  byHand: 'Turn its front to the source; a side-address microphone is spoken at from the side with the mark.',
  after: 'Set the gain again: it is louder now.',
}
