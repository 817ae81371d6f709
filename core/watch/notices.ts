import type { Answers } from '../diagnosis/checks'
import { diagnoseIn } from '../diagnosis/diagnose'
import { answersOf } from '../diagnosis/recording'
import type { SymptomId } from '../diagnosis/symptom'
import { SessionView } from '../diagnosis/view'
import type { Evaluation } from '../evaluation/evaluate-session'
import type { HeardChannel } from '../measure/heard/listen'
import type { Alike } from '../measure/live/live-memory'
import type { LiveSnapshot } from '../measure/live/live-meter'
import type { Session } from '../session'
import { formatDecimal } from '../units'
import type { Lane } from './lane'
import type { LaneState } from './state'
import { isClipped, readOf, sounds } from './state'

/** A fault or an oddity that was noticed on an input while listening. */
export interface Notice {
  /** The same for the same thing: what was put aside once is not said again. */
  id: string
  strip: string
  says: string
  /** How sure, 0…1. */
  sure: number
  /** What Faults begins with; `null` where there is nothing to look up. */
  faults: { symptom: SymptomId; answers: Answers } | null
}

/** What is known of all inputs at a moment; lists stand in the order of the lanes, but for the device’s own channels. */
export interface Watched {
  session: Session
  evaluation: Evaluation
  lanes: readonly Lane[]
  /** Of each lane, and its state. */
  snapshots: readonly LiveSnapshot[]
  states: readonly LaneState[]
  /** What was heard on each lane, where it was listened to. */
  heard: readonly (HeardChannel | null)[]
  /** Lanes that carry one sound. */
  alike: readonly Alike[]
  /** Channels of the device that sound and are no lane’s, counted from 0. */
  spare: readonly number[]
}

/** From there on two channels are one signal, not two microphones in one room (common practice, no source). */
export const ONE_SIGNAL = 0.98
/** From there on one side of a pair is inverted (common practice, no source). */
export const INVERTED = 0.7

export const noticesOf = (watched: Watched): Notice[] => [
  ...swappedCables(watched),
  ...silentLanes(watched),
  ...oneSignal(watched),
  ...watched.lanes.flatMap((lane, i) => {
    const heard = watched.heard[i]
    return heard ? heardOn(lane, heard, watched) : []
  }),
]

/** Of the likeliest cause that the chain itself has. */
const LEAST_SURE = 0.05

function silentLanes({ session, lanes, states, spare }: Watched): Notice[] {
  const silent = lanes.filter((_, i) => states[i] === 'silent')
  if (silent.length === 0) return []
  const view = new SessionView(session)
  return silent.map(({ strip }) => {
    const [likeliest] = diagnoseIn(view, strip, { symptoms: ['nothing'], answers: {} }).causes
    const cause = likeliest && likeliest.probability >= LEAST_SURE ? likeliest : null
    const elsewhere =
      spare.length > 0 ? ` Channel ${spare.map((each) => each + 1).join(' and ')} has sound and no strip.` : ''
    return {
      id: `silent ${strip}`,
      strip,
      says: `${cause ? `Silent. Likeliest: ${cause.title}.` : 'Silent.'}${elsewhere}`,
      sure: cause?.probability ?? 0,
      faults: { symptom: 'nothing' as const, answers: {} },
    }
  })
}

function oneSignal({ session, lanes, alike }: Watched): Notice[] {
  return alike.flatMap(({ channels: [a, b], likeness }): Notice[] => {
    const [first, second] = [lanes[a], lanes[b]]
    if (!first || !second || first.channel === second.channel) return []
    const isPair = session.pairs?.some(
      ({ left, right }) =>
        (left === first.strip && right === second.strip) || (left === second.strip && right === first.strip),
    )
    if (isPair && likeness <= -INVERTED)
      return [
        {
          id: `turned ${first.strip} ${second.strip}`,
          strip: second.strip,
          says: `The pair “${first.name}” and “${second.name}” is inverted on one side: a cable, or a polarity switch.`,
          sure: -likeness,
          faults: { symptom: 'echo', answers: { 'flip-polarity': 'fuller' } },
        },
      ]
    if (isPair || Math.abs(likeness) < ONE_SIGNAL) return []
    return [
      {
        id: `one ${first.strip} ${second.strip}`,
        strip: second.strip,
        says: `The same signal as on “${first.name}”: a split cable, or one channel sent to both.`,
        sure: Math.abs(likeness),
        faults: null,
      },
    ]
  })
}

/** How far a performer may be from what was assumed of it, dB; how often cables are swapped (common practice, no source). */
const [UNSURE, SWAPPED] = [6, 0.05]
/** Unless it is likelier than not, nothing is said. */
const LEAST_ODDS = 1

/** Two inputs that each read what the other should: how much likelier that is than both of them being as far off as they are. */
function swappedCables({ lanes, snapshots, evaluation }: Watched): Notice[] {
  const entering = (strip: string) =>
    evaluation.strips.find(({ id }) => id === strip)?.points.find(({ unit }) => unit === 'dBu')?.peak
  const read = lanes.map((lane, i) => {
    const snapshot = snapshots[i]
    const peak = snapshot?.passage.peak ?? null
    const enters = entering(lane.strip)
    return snapshot && sounds(lane, peak) && enters !== undefined
      ? { lane, enters, off: peak - lane.expected.peak, clips: isClipped(snapshot) }
      : null
  })
  const pairs = read.flatMap((first, a) =>
    read.slice(a + 1).flatMap((second) => {
      if (!first || !second) return []
      // The second one’s source in the first one’s input is that much louder there.
      const apart = second.enters - first.enters
      const own = beside(first, 0) ** 2 + beside(second, 0) ** 2
      const swapped = beside(first, apart) ** 2 + beside(second, -apart) ** 2
      const odds = (SWAPPED / (1 - SWAPPED)) * Math.exp((own - swapped) / (2 * UNSURE ** 2))
      return odds < LEAST_ODDS ? [] : [{ one: first.lane, other: second.lane, odds }]
    }),
  )
  // A cable is in one place: of the pairs that share a strip the likeliest stays.
  const sorted = pairs.sort((a, b) => b.odds - a.odds)
  const alone = sorted.filter(
    ({ one, other }, i) =>
      !sorted.slice(0, i).some((each) => [each.one, each.other].some((lane) => lane === one || lane === other)),
  )
  return alone.map(({ one, other, odds }) => ({
    id: `swapped ${one.strip} ${other.strip}`,
    strip: one.strip,
    says: `“${one.name}” and “${other.name}” each read what the other should: their cables may be swapped.`,
    sure: Math.min(1 / (1 + 1 / odds), MOST_SURE),
    faults: null,
  }))
}
/** Levels alone prove nothing. */
const MOST_SURE = 0.9

/** How far a level lies from what is wanted; at its top a meter has no more to show, and a louder source fits as well. */
const beside = ({ off, clips }: { off: number; clips: boolean }, wanted: number): number =>
  clips ? Math.max(0, off - wanted) : off - wanted

/** Pauses louder than planned by more than that are worth a word, dB (common practice, no source). */
const LOUD_PAUSE = 6

function heardOn(lane: Lane, heard: HeardChannel, { evaluation, snapshots, lanes }: Watched): Notice[] {
  const planned = evaluation.strips.find(({ id }) => id === lane.strip) ?? null
  const { answers } = answersOf({ seconds: 0, channels: [heard], silent: [], polarity: null }, planned)
  const notice = (what: string, says: string, sure: number, symptom: SymptomId | null): Notice => ({
    id: `${what} ${lane.strip}`,
    strip: lane.strip,
    says,
    sure,
    faults: symptom && { symptom, answers },
  })
  const { hum, dropouts, dc, comb, clipped, floor } = heard
  const found: Notice[] = []
  if (hum) {
    const snapshot = snapshots[lanes.indexOf(lane)]
    const under = snapshot && readOf(lane, snapshot)
    const lines = hum.lines
      .slice()
      .sort((a, b) => b.level - a.level)
      .slice(0, 2)
      .map(({ frequency }) => `${formatDecimal(frequency, 0)} Hz`)
    found.push(
      notice(
        'hum',
        `Hum: ${lines.join(' and ')}, ${under == null ? `${formatDecimal(hum.level, 1)} dBFS` : `${formatDecimal(under - hum.level, 0)} dB under the programme`}.`,
        0.9,
        'hum',
      ),
    )
  }
  if (dropouts.count > 0)
    found.push(
      notice(
        'gaps',
        `${dropouts.count} ${dropouts.count === 1 ? 'place is' : 'places are'} torn in the last ten seconds${dropouts.every === null ? '' : `, every ${formatDecimal(dropouts.every, 2)} s`}.`,
        0.8,
        'crackle',
      ),
    )
  // What clips on one side alone has one too, and it is not the converter’s.
  if (dc !== null && !clipped)
    found.push(notice('offset', `A constant offset of ${formatDecimal(dc, 1)} dBFS.`, 0.95, null))
  if (comb) found.push(notice('comb', `Doubled signal, ${formatDecimal(comb.delayMs, 1)} ms apart.`, 0.8, 'echo'))
  if (clipped && clipped.level < -0.1)
    found.push(
      notice(
        'early',
        `Clips at ${formatDecimal(clipped.level, 1)} dBFS, before the converter: turning down behind it does not help.`,
        0.8,
        'distortion',
      ),
    )
  if (floor !== null && lane.floor !== null && floor > lane.floor + LOUD_PAUSE)
    found.push(
      notice(
        'pauses',
        `The pauses are ${formatDecimal(floor - lane.floor, 0)} dB louder than planned: a fan, traffic, or a noisy stage.`,
        0.6,
        'hiss',
      ),
    )
  return found
}
