import { isMicrophone } from '../../gear'
import { feedsOf, isBus } from '../../model'
import { db, formatDecimal } from '../../units'
import type { Cause } from '../cause'
import { says } from '../cause'
import type { DiagnosisView } from '../view'
import { dB } from './common'

const loopOf = (view: DiagnosisView) =>
  view.busses.flatMap((bus) => (bus.evaluated.feedback ? [{ bus, feedback: bus.evaluated.feedback }] : []))
const margin = (view: DiagnosisView): number | null => {
  const margins = loopOf(view).flatMap(({ feedback }) => (feedback.margin === null ? [] : [feedback.margin]))
  return margins.length > 0 ? Math.min(...margins) : null
}
const sendsToRooms = (view: DiagnosisView) =>
  feedsOf(view.strip).filter(({ to }) => loopOf(view).some(({ bus }) => bus.strip.id === to))
/** Microphones that take part in the howl: those within 12 dB of the worst. */
const openMicrophones = (view: DiagnosisView) =>
  Math.max(
    0,
    ...loopOf(view).map(
      ({ feedback: { microphones } }) =>
        microphones.filter(({ loop }) => loop > (microphones[0]?.loop ?? Infinity) - TAKES_PART).length,
    ),
  )
const TAKES_PART = 12
const holds = (view: DiagnosisView) => (margin(view) ?? 0) >= 0

/** The costliest microphone’s send lowered until the margin is back; for a bus its costliest strip’s. */
function lowerSend(view: DiagnosisView, by: (worst: number) => number) {
  return loopOf(view).flatMap(({ bus, feedback }) => {
    const worst = feedback.microphones[0]?.strips.at(0)
    const strip = view.session.strips.find(({ id }) => id === worst)
    const send = strip && feedsOf(strip).find(({ to }) => to === bus.strip.id)
    if (!strip || !send || feedback.margin === null) return []
    const lower = Math.max(-120, send.gain - by(feedback.margin))
    return [
      {
        says: `Bring the send of ${strip.name} into ${bus.strip.name} down by ${dB(send.gain - lower)}.`,
        changes: [{ do: 'feed' as const, strip: strip.id, to: bus.strip.id, set: { gain: db(lower) } }],
      },
    ]
  })
}

const FEEDBACK_CAUTION = 'Loudspeakers down first: feedback can hurt ears and drivers.'

export const microphoneInRoom: Cause = {
  title: 'A microphone that does not belong there feeds the room',
  prior: 6,
  symptoms: { howl: 0.9 },
  codes: ['feedback-unknown'],
  shows: { 'meant-for-room': { not: 0.96 }, 'mute-sends': { one: 0.95 } },
  evidence: (view) => {
    const open = openMicrophones(view)
    if (loopOf(view).length === 0) return [says('No microphone of this strip is sent to a loudspeaker.', 0.1)]
    return [says(`${open === 1 ? 'One microphone is' : `${open} microphones are`} sent to the loudspeakers.`, 1.5)]
  },
  byHand: 'Take the send of that microphone into the loudspeakers out.',
  after: 'Bring the loudspeakers up slowly, and stop at the first ring.',
  caution: FEEDBACK_CAUTION,
}

export const marginGone: Cause = {
  title: 'More gain than the room allows',
  prior: 7,
  symptoms: { howl: 0.95 },
  codes: ['feedback-margin'],
  shows: { 'mute-sends': { one: 0.9 }, 'meant-for-room': { meant: 0.97 } },
  present: (view) => (margin(view) ?? 99) < 0 && openMicrophones(view) < 3,
  cured: holds,
  evidence: (view) => {
    const left = margin(view)
    if (left === null)
      return loopOf(view).length > 0
        ? [says('The distance to the loudspeaker is not set, so no margin is known.', 1)]
        : [says('No microphone of this strip is sent to a loudspeaker.', 0.1)]
    return [
      says(
        `The margin before feedback is ${formatDecimal(left, 1)} dB, 6 dB kept back.`,
        left < 0 ? (openMicrophones(view) < 3 ? 15 : 4) : left < 3 ? 3 : 0.1,
      ),
    ]
  },
  fixes: (view) => lowerSend(view, (left) => Math.ceil(3 - left)),
  byHand:
    'Bring the loudspeakers or the send down, the microphone nearer to its source, the loudspeaker farther from it.',
  after: 'Bring the level up slowly; at the first ring go back by 6 dB.',
  caution: FEEDBACK_CAUTION,
}

export const tooManyOpen: Cause = {
  title: 'Too many microphones are open',
  prior: 5,
  symptoms: { howl: 0.85, thin: 0.1 },
  shows: { 'mute-sends': { several: 0.95 }, 'meant-for-room': { meant: 0.97 } },
  present: (view) => (margin(view) ?? 99) < 0 && openMicrophones(view) >= 3,
  evidence: (view) => {
    const open = openMicrophones(view)
    if (open < 2)
      return [
        says(
          open === 1
            ? 'One microphone only is sent to the loudspeakers.'
            : 'No microphone of this strip is sent to a loudspeaker.',
          0.03,
        ),
      ]
    return [
      says(
        `${open} microphones are open: each doubling of their number costs 3 dB of margin, here ${dB(10 * Math.log10(open))}.`,
        open >= 3 && (margin(view) ?? 0) < 0 ? 15 : 0.6,
      ),
    ]
  },
  cured: holds,
  fixes: (view) => [6, 12, 20, 40].flatMap((less) => closed(view, less)),
  byHand: 'Close what is not used just now: mute, or bring its send down.',
  after: 'Bring the level up slowly; at the first ring go back by 6 dB.',
  caution: FEEDBACK_CAUTION,
}

/** Every send but the loudest microphone’s brought down, and with it the loudest as far as it takes. */
function closed(view: DiagnosisView, less: number) {
  return loopOf(view).flatMap(({ bus, feedback }) => {
    const sends = feedback.microphones.flatMap(({ strips, loop }) =>
      strips.flatMap((id) => {
        const strip = view.session.strips.find((each) => each.id === id)
        const send = strip && feedsOf(strip).find(({ to }) => to === bus.strip.id)
        return send ? [{ id, send, loop }] : []
      }),
    )
    const [loudest, ...others] = sends
    if (!loudest || others.length === 0) return []
    // By itself it may still be too much: 6 dB and another 3 are kept back.
    const over = Math.max(0, Math.ceil(loudest.loop + 9))
    const changes = [{ ...loudest, by: over }, ...others.map((each) => ({ ...each, by: less }))]
      .filter(({ by }) => by > 0)
      .map(({ id, send, by }) => ({
        do: 'feed' as const,
        strip: id,
        to: bus.strip.id,
        set: { gain: db(Math.max(-120, send.gain - by)) },
      }))
    const also = over > 0 ? `, and that one’s by ${over} dB` : ''
    return [
      {
        says: `Bring the sends of all but the loudest microphone into ${bus.strip.name} down by ${less} dB${also}.`,
        changes,
      },
    ]
  })
}

export const patternTurned: Cause = {
  title: 'A microphone points at the loudspeaker',
  prior: 5,
  symptoms: { howl: 0.85 },
  shows: { 'where-it-looks': { towards: 0.96 }, 'mute-sends': { one: 0.9 }, 'meant-for-room': { meant: 0.97 } },
  evidence: (view) => {
    if (sendsToRooms(view).length === 0 && !isBus(view.strip))
      return [says('No microphone of this strip is sent to a loudspeaker.', 0.1)]
    const microphone = view.stages.find((each) => isMicrophone(each))
    return isMicrophone(microphone) && (microphone.gear.pattern ?? 'omni') === 'omni'
      ? [says(`“${microphone.gear.name}” has no stated back: it hears all sides alike.`, 0.4)]
      : []
  },
  byHand:
    'Turn the microphone so that the loudspeaker is where its pattern picks up least: behind a cardioid, diagonally behind a hypercardioid.',
  after: 'Bring the level up slowly; at the first ring go back by 6 dB.',
  caution: FEEDBACK_CAUTION,
}
