import { isLoudspeaker } from '../gear'
import type { StripView } from '../checks'
import type { Sum } from '../chain/sum'
import { isWithinRange, lowerSend, sendLoweredBy, sendTo } from '../checks/sends'
import type { Draft, Fix } from '../checks/finding'
import { feedsOf } from '../model'
import { db, formatDecimal, formatSigned } from '../units'
import type { Feedback } from './feedback'
import type { Stream } from './stream'
import { streamControl } from './stream'

/** A bus as its checks look at it. */
export interface BusView extends StripView {
  readonly sum: Sum | null
  readonly feedback: Feedback | null
  readonly stream: Stream | null
}

/** Room that a sum should have: two strips at the mark raise it by 3 to 6 dB (common practice, no source). */
export const SUM_RESERVE = 6

const dB = (value: number) => `${formatDecimal(Math.abs(value), 1)} dB`

/** All that is to be said of a bus besides what is said of any strip. */
export function busFindings(view: BusView): Draft[] {
  const first = view.strip.stages[0]?.id ?? view.strip.id
  if (!view.sum) {
    return [
      {
        code: 'bus-unfed',
        severity: 'note',
        stage: first,
        message: 'No strip feeds this bus: its level is not known.',
        action: 'Give a strip a send to it, on its page or in Mix.',
      },
    ]
  }
  return [
    ...sumTooHot(view, view.sum, first),
    ...streamLoudness(view),
    ...limiterWorks(view),
    ...howl(view),
    ...loudspeakers(view),
  ]
}

/** The sum comes too near to the ceiling of the stage in which the strips meet. */
function sumTooHot(view: BusView, sum: Sum, first: string): Draft[] {
  const point = view.points[0]
  const headroom = point?.unit === 'dBFS' ? null : (point?.headroom ?? null)
  if (headroom === null || headroom >= SUM_RESERVE) return []
  const by = SUM_RESERVE - headroom
  const over = headroom < 0
  const loudest = nameOf(view, sum.brought[0]?.strip)
  return [
    {
      code: 'sum-too-hot',
      severity: over ? 'stop' : 'caution',
      stage: first,
      message: over
        ? `Together the strips overdrive “${view.stages[0]?.gear.name}” by ${dB(headroom)}.`
        : `Where the strips meet ${dB(headroom)} are left at the likely peak; ${formatDecimal(headroom - (sum.bound - sum.likely), 1)} dB if all peaks came at once.`,
      action: `Turn down the loudest, ${loudest}, at its fader or send; the gains stay.`,
      fixes: () => bringDown(view, sum, by),
    },
  ]
}

/** The loudest strip alone as far down as brings the sum where it should be, else all of them alike. */
function bringDown(view: BusView, sum: Sum, by: number): Fix[] {
  const feeders = sum.brought.flatMap(({ strip: id }) => view.session.strips.filter((strip) => strip.id === id))
  const one = feeders.slice(0, 1).flatMap((strip) =>
    [by, by + 0.1, by + 1, by + 3, by + 6, by + 12].map((least) => {
      const to = sendLoweredBy(strip, view.strip.id, least)
      return {
        action: `Bring “${strip.name}” down by ${dB(sendTo(strip, view.strip.id).gain - to)}, to ${formatDecimal(to, 1)} dB.`,
        changes: [lowerSend(strip, view.strip.id, least)],
      }
    }),
  )
  const all = {
    action: `Bring all ${feeders.length} strips down by ${dB(Math.ceil(by))} into this bus; their balance stays.`,
    changes: feeders.map((strip) => lowerSend(strip, view.strip.id, Math.ceil(by))),
  }
  return [...one, all].filter(({ changes }) => changes.every(isWithinRange))
}

const nameOf = ({ session }: BusView, id: string | undefined) =>
  `“${session.strips.find((strip) => strip.id === id)?.name ?? ''}”`

/** An estimate that lies that near to what is wanted is as good as there, LU. */
const NEAR = 1

function streamLoudness(view: BusView): Draft[] {
  const { stream, strip, session } = view
  if (!stream || Math.abs(stream.loudness - stream.wanted) <= NEAR) return []
  const off = stream.loudness - stream.wanted
  const control = streamControl(session, strip)
  const to = control && stream.gain !== null ? Math.round((control.value + stream.gain) * 10) / 10 : null
  const reached = control && to !== null && to >= control.range.gainMin && to <= control.range.gainMax
  const box = view.stages.find((stage) => stage.id === control?.stage)?.gear.name ?? ''
  const action = reached
    ? `Turn the ${control.setting} of “${box}” by ${formatSigned(stream.gain, 1)} dB to ${formatDecimal(to, 1)} dB; then check with a meter or a file.`
    : stream.gain === null
      ? 'No gain before the limiter reaches it: it takes off whatever you add. Raise its ceiling, or lower the wanted loudness.'
      : `It needs ${formatSigned(stream.gain, 1)} dB before the limiter: put a fader or a gain there.`
  return [
    {
      code: 'stream-loudness',
      severity: 'note',
      stage: control?.stage ?? strip.stages[0]?.id ?? strip.id,
      message: `The stream is estimated at ${formatDecimal(stream.loudness, 1)} LUFS in its loud passages, ${formatDecimal(Math.abs(off), 1)} LU ${off > 0 ? 'over' : 'under'} the ${formatDecimal(stream.wanted, 1)} LUFS wanted.`,
      action,
      fixes: () =>
        reached
          ? [{ action, changes: [{ strip: strip.id, stage: control.stage, setting: control.setting, to: db(to) }] }]
          : [],
    },
  ]
}

/** A limiter that takes off more than this at the rehearsed peak is heard (common practice, no source). */
const HEARD = 6

function limiterWorks({ stream, strip, points }: BusView): Draft[] {
  const reduced = points.find(({ reduction }) => reduction && reduction.peak > 0)
  if (!stream || stream.reduction.peak <= HEARD) return []
  return [
    {
      code: 'limiter-works',
      severity: 'caution',
      stage: reduced?.stage ?? strip.id,
      message: `The limiter takes ${dB(stream.reduction.peak)} off the peaks and ${dB(stream.reduction.surge)} off the surge: that is audible.`,
      action: 'Less gain before it, or a lower loudness; the stream gets no quieter between the peaks.',
    },
  ]
}

/** Less than this and it rings before it feeds back, dB (common practice, no source). */
const RINGS = 3

function howl(view: BusView): Draft[] {
  const { feedback, strip } = view
  const stage = strip.stages.at(-1)?.id ?? strip.id
  if (!feedback) return []
  const [worst] = feedback.microphones
  const count = feedback.microphones.length
  const open = `${count} open ${count === 1 ? 'microphone' : 'microphones'}`
  const who = worst?.strips.map((id) => nameOf(view, id)).join(' and ') ?? ''
  if (feedback.margin === null) {
    return [
      {
        code: 'feedback-unknown',
        severity: 'note',
        stage,
        message: `${count === 1 ? 'A microphone feeds' : `${count} microphones feed`} this loudspeaker, and their distance from it is not known.`,
        action:
          'Enter the distance from microphone to loudspeaker on Monitoring; until then keep the microphones out of this bus.',
      },
    ]
  }
  if (feedback.margin >= RINGS) return []
  return [
    {
      code: 'feedback-margin',
      severity: feedback.margin < 0 ? 'stop' : 'caution',
      stage,
      message:
        feedback.margin < 0
          ? `With ${open} this can feed back: it is ${dB(feedback.margin)} past what is safe.`
          : `${dB(feedback.margin)} gain before feedback, with ${open}.`,
      action: `Take ${who} out of this bus, or lower it there: that microphone costs most. Loudspeakers down before any microphone is moved.`,
      fixes: () => quieterMicrophone(view, worst?.strips ?? []),
    },
  ]
}

/** The microphone that costs most lower into the bus, or all of them, as far as they feed it directly. */
function quieterMicrophone(view: BusView, worst: readonly string[]): Fix[] {
  const open = (view.feedback?.microphones ?? []).flatMap(({ strips }) => strips)
  const direct = view.session.strips.filter((strip) => feedsOf(strip).some(({ to }) => to === view.strip.id))
  const lower = (ids: readonly string[]) => {
    const strips = direct.filter(({ id }) => ids.includes(id))
    return strips.length === 0
      ? []
      : [6, 12, 18, 24].map((by) => ({
          action: `Lower ${strips.map(({ name }) => `“${name}”`).join(' and ')} by ${by} dB into this bus.`,
          changes: strips.map((strip) => lowerSend(strip, view.strip.id, by)),
        }))
  }
  return [...lower(worst), ...lower(open)].filter(({ changes }) => changes.every(isWithinRange))
}

/** Directive 2003/10/EC, upper action value, dB(A) over 8 h; an audience has local rules of its own. */
const LOUD = 85

function loudspeakers({ stages, points }: BusView): Draft[] {
  const [last, end] = [stages.at(-1), points.at(-1)]
  if (!isLoudspeaker(last) || !end) return []
  const stage = last.id
  const order: Draft = {
    code: 'power-order',
    severity: 'note',
    stage,
    message:
      'Loudspeakers come last: sources and desk on first, then the amplifiers; off in reverse. Set them after the desk.',
    action:
      'Amplifiers off before a loudspeaker is plugged or unplugged; leave the inside of the device to a qualified person.',
  }
  if (end.average < LOUD) return [order]
  return [
    {
      code: 'audience-level',
      severity: 'caution',
      stage,
      message: `${formatDecimal(end.average, 0)} dB SPL average at the listener, ${formatDecimal(end.peak, 0)} at the peaks: hearing is at risk at such levels over time.`,
      action:
        'Local rules on levels for an audience decide; turn down, keep people away from the loudspeakers, and measure on the spot.',
    },
    order,
  ]
}
