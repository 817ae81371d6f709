import { isBus } from '../../model'
import { isDeskChannel, isMicrophone, isLink } from '../../gear'
import { formatDecimal, formatShort, frames, hz } from '../../units'
import { buffersOf } from '../buffers'
import type { Cause } from '../cause'
import { says } from '../cause'
import { combWords } from '../comb-words'
import { LATE, isHeardLate } from '../symptom-shown'
import type { DiagnosisView } from '../view'

const ms = (value: number) => `${formatDecimal(value, value < 10 ? 2 : 1)} ms`
const setRoute = (view: DiagnosisView) =>
  view.evaluated.latency.find(({ route }) => route === view.strip.monitor.route) ?? null
const part = (view: DiagnosisView, ...names: string[]) =>
  (setRoute(view)?.parts ?? []).reduce((sum, each) => sum + (names.includes(each.name) ? each.milliseconds : 0), 0)
const hasDirect = (view: DiagnosisView) => view.evaluated.latency.some(({ route }) => route === 'direct')
const isThroughHost = (view: DiagnosisView) => view.strip.monitor.route === 'software'

/** The direct way, where there is one; the plug-ins’ delay stays away with it. */
const listenDirect = (view: DiagnosisView) =>
  hasDirect(view) && isThroughHost(view)
    ? [
        {
          says: 'Listen direct, inside the unit.',
          changes: [{ do: 'monitor' as const, strip: view.strip.id, set: { route: 'direct' as const } }],
        },
      ]
    : []

export const directAndHost: Cause = {
  title: 'Direct and host monitoring are both on',
  prior: 10,
  symptoms: { echo: 0.95, thin: 0.35 },
  shows: { 'comb-in-file': { clean: 0.97 }, 'mute-host': { once: 0.96 }, 'how-far-apart': { hollow: 0.6, apart: 0.4 } },
  present: (view) => view.monitor?.doubling != null,
  evidence: (view) => {
    const doubling = view.monitor?.doubling
    if (doubling) {
      const { sound } = combWords(doubling.delayMs, doubling.ripple)
      return [
        says(
          `Both paths are on, ${ms(doubling.delayMs)} apart: first notch at ${formatDecimal(doubling.firstNotch, 0)} Hz; it sounds ${sound}.`,
          25,
        ),
      ]
    }
    if (!view.monitor) return [says('Nobody listens to this strip by headphones.', 0.2)]
    return hasDirect(view)
      ? [says('One path is on, as the session has it.', 0.4)]
      : [says('The unit has no direct monitoring.', 0.05)]
  },
  fixes: (view) => {
    const doubling = view.monitor?.doubling
    return doubling
      ? [
          {
            says: `Switch off ${doubling.switchOff}.`,
            changes: [
              {
                do: 'monitor' as const,
                strip: view.strip.id,
                set: { route: doubling.keep },
                unset: ['alsoHeard' as const],
              },
            ],
          },
        ]
      : []
  },
  byHand: 'Switch one of the two off: the host’s input monitoring of the track, or the unit’s direct mix.',
  after: 'Clap once and listen: one sound.',
}

export const deskReturn: Cause = {
  title: 'The desk returns its own output',
  prior: 5,
  symptoms: { 'echo': 0.8, 'howl': 0.3, 'level-drifts': 0.1 },
  shows: {
    'comb-in-file': { comb: 0.85 },
    'mute-return': { goes: 0.96 },
    'how-far-apart': { apart: 0.6, hollow: 0.4 },
  },
  evidence: (view) =>
    view.all.strips.some(({ stages }) => stages.some((each) => isDeskChannel(each)))
      ? [says('A desk is in the session: what the computer plays comes back on one of its channels.', 2)]
      : [says('There is no desk in the session.', 0.15)],
  byHand:
    'Take the computer’s return out of the sends that go to the computer: monitor and mute it, or send from the direct outputs.',
  after: 'Clap once and listen: one sound, in headphones and in the recording.',
  caution: 'Faders down before routings are changed: a closed loop howls.',
}

export const streamMonitor: Cause = {
  title: 'A loudspeaker plays it back into the microphone',
  prior: 4,
  symptoms: { echo: 0.8, howl: 0.03 },
  shows: {
    'comb-in-file': { comb: 0.7 },
    'how-far-apart': { seconds: 0.9, apart: 0.1 },
    'mute-loudspeakers': { goes: 0.96 },
  },
  evidence: (view) =>
    view.all.strips.some(({ strip }) => isBus(strip) && strip.loudness !== undefined)
      ? [says('There is a stream: whoever watches it aloud in the room is heard again after seconds.', 2)]
      : view.stages.some((each) => isMicrophone(each))
        ? []
        : [says('There is no microphone in this strip.', 0.05)],
  byHand: 'Mute the computer, phone or tablet that plays the stream; watch it by headphones.',
  after: 'Clap once and wait ten seconds.',
}

export const bufferTooLarge: Cause = {
  title: 'The buffer is large',
  prior: 10,
  symptoms: { late: 0.95 },
  codes: ['latency-unprinted'],
  shows: { 'halve-buffer': { earlier: 0.96 }, 'listen-direct': { goes: 0.95 } },
  present: (view) => isThroughHost(view) && isHeardLate(view) && part(view, 'buffer-in', 'buffer-out') > LATE / 2,
  evidence: (view) => {
    if (!isThroughHost(view)) return [says('The strip is heard direct: no buffer is in the way.', 0.02)]
    const route = setRoute(view)
    if (!route) return []
    const buffers = part(view, 'buffer-in', 'buffer-out')
    return [
      says(
        `Of ${ms(route.milliseconds)} to the ears the buffers of ${view.session.system.bufferFrames} frames take ${ms(buffers)}.`,
        buffers > LATE ? 10 : buffers > LATE / 2 ? 3 : 0.15,
      ),
    ]
  },
  fixes: (view) => [...asRecommended(view), ...listenDirect(view), ...smaller(view)],
  byHand: 'Use direct monitoring, or a smaller buffer while recording, as far as the machine keeps up.',
  after: 'Play a busy passage and listen for crackles.',
}

/** What is recommended for this performer, where it is sustained. */
function asRecommended(view: DiagnosisView) {
  const best = view.recommendation
  if (!best?.sustained) return []
  const { route, sampleRate, bufferFrames } = best
  const isDirect = route === 'direct'
  return [
    {
      says: isDirect
        ? 'Use direct monitoring.'
        : `Set the buffer to ${bufferFrames} frames${sampleRate === view.session.system.sampleRate ? '' : ` at ${formatShort(sampleRate / 1000)} kHz`}.`,
      changes: [
        ...(isDirect
          ? []
          : [{ do: 'system' as const, set: { bufferFrames: frames(bufferFrames), sampleRate: hz(sampleRate) } }]),
        { do: 'monitor' as const, strip: view.strip.id, set: { route } },
      ],
    },
  ]
}

/** The next smaller buffer that is not known to drop out. */
function smaller(view: DiagnosisView) {
  const { sampleRate, bufferFrames } = view.session.system
  return buffersOf(view.all)
    .filter((count) => count < bufferFrames)
    .filter((count) => {
      const cell = view.all.timing.matrix.find((each) => each.sampleRate === sampleRate && each.bufferFrames === count)
      return cell?.sustainable !== false
    })
    .map((count) => ({
      says: `Set the buffer to ${count} frames.`,
      changes: [{ do: 'system' as const, set: { bufferFrames: frames(count) } }],
    }))
}

export const plugInDelay: Cause = {
  title: 'A plug-in looks ahead',
  prior: 5,
  symptoms: { late: 0.85 },
  shows: { 'bypass-plug-ins': { goes: 0.95 }, 'halve-buffer': { same: 0.9 }, 'listen-direct': { goes: 0.95 } },
  present: (view) => isThroughHost(view) && part(view, 'plug-ins') > LATE / 2,
  evidence: (view) => {
    if (!isThroughHost(view)) return [says('The strip is heard direct: no plug-in is in the way.', 0.02)]
    const delay = part(view, 'plug-ins')
    return delay > 0
      ? [says(`The plug-ins on the monitored path report ${ms(delay)}.`, delay > LATE / 2 ? 12 : 0.6)]
      : [says('No plug-in delay is entered for this strip.', 0.3)]
  },
  fixes: (view) => [
    {
      says: 'Take the plug-ins off the monitored path while recording.',
      changes: [{ do: 'monitor', strip: view.strip.id, set: { pluginFrames: frames(0) } }],
    },
    ...listenDirect(view),
  ],
  byHand: 'Bypass or freeze what looks ahead – limiters, linear-phase equalisers, repairs – while recording.',
  after: 'Look at the delay that the host reports for the track.',
  caution: 'A bypassed limiter no longer holds peaks back: monitors down first.',
}

export const wirelessLink: Cause = {
  title: 'A wireless or network link adds delay',
  prior: 4,
  symptoms: { late: 0.7 },
  shows: { 'cable-instead': { goes: 0.95 }, 'listen-direct': { stays: 0.95 }, 'halve-buffer': { same: 0.95 } },
  present: (view) => part(view, 'link') > LATE / 2,
  evidence: (view) => {
    const time = part(view, 'link')
    if (time > 0) return [says(`The links on the way take ${ms(time)}.`, time > LATE / 2 ? 15 : 0.8)]
    return [says('No link is in this strip; a wireless monitor would be one beside it.', 0.3)]
  },
  fixes: (view) =>
    view.stages.flatMap((stage) =>
      isLink(stage)
        ? [
            {
              says: `Take a cable in the place of “${stage.gear.name}”.`,
              changes: [{ do: 'remove' as const, strip: view.strip.id, stage: stage.id }],
            },
          ]
        : [],
    ),
  byHand:
    'Take a cable in its place, or a link with less delay; wireless headphones are for listening, not for playing.',
  after: 'Measure the round trip again.',
}

export const loudspeakerDistance: Cause = {
  title: 'The loudspeaker is far away',
  prior: 4,
  symptoms: { late: 0.7, echo: 0.3 },
  shows: {
    'headphones-instead': { goes: 0.96 },
    'halve-buffer': { same: 0.9 },
    'how-far-apart': { apart: 0.9 },
    'mute-loudspeakers': { goes: 0.9 },
    'listen-direct': { stays: 0.95 },
  },
  present: (view) => part(view, 'air-out') > LATE / 2,
  evidence: (view) => {
    const time = part(view, 'air-out')
    const { speakerDistance } = view.strip.monitor
    return time > 0
      ? [
          says(
            `The sound takes ${ms(time)} from the loudspeaker, ${formatDecimal(speakerDistance, 1)} m away.`,
            time > LATE / 2 ? 12 : 0.8,
          ),
        ]
      : [says('The performer listens to no loudspeaker, as the session has it.', 0.2)]
  },
  fixes: (view) => [
    {
      says: 'Let the performer listen by headphones.',
      changes: [{ do: 'monitor', strip: view.strip.id, set: {}, unset: ['speakerDistance'] }],
    },
  ],
  byHand: 'Bring the loudspeaker nearer, or give the performer headphones.',
  after: 'Set the volume again, from minimum.',
  caution: 'Volume down before headphones go on; start from low.',
}
