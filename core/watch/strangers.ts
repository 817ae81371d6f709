import type { Evaluation } from '../evaluation/evaluate-session'
import { seeded } from '../numeric/random'
import type { Performance } from '../render/performer'
import { performanceAt } from '../simulated/performance'
import type { Lane } from './lane'

/** What is wrong with a simulated performer beyond playing louder or softer than assumed. */
export type StrangerFault = 'pad' | 'dead' | 'swapped'

/** Somebody who sits at an input of the session and is not quite who was planned. */
export interface Stranger {
  strip: string
  /** Louder than assumed, dB. */
  louder: number
  /** Peaks further over the average than assumed, dB. */
  crest: number
  fault: StrangerFault | null
  /** The strip whose input the cable is in; the own one unless two are swapped. */
  comesInOn: string
}

/** How far a performer differs from the plan: standard deviations of level and crest factor, and the most, dB (common practice, no source). */
const OFF = { louder: 4, crest: 1.5, most: 10 } as const
/** What a pad takes that is pressed and not in the session, dB. */
const PAD = -20

/** Who sits at the inputs: the same for a seed. Of five inputs or more two cables are swapped, one has a pad in, one is dead. */
export function strangersOf(lanes: readonly Lane[], seed: number, faults: readonly StrangerFault[]): Stranger[] {
  const random = seeded(seed)
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
  const within = (value: number) => Math.round(10 * Math.max(-OFF.most, Math.min(OFF.most, value))) / 10
  const strangers = lanes.map(({ strip }): Stranger => ({
    strip,
    louder: within(OFF.louder * normal()),
    crest: within(OFF.crest * normal()),
    fault: null,
    comesInOn: strip,
  }))
  const free = [...strangers]
  const draw = () => free.splice(Math.floor(random() * free.length), 1)[0]
  for (const fault of faults) {
    const one = draw()
    const other = fault === 'swapped' ? draw() : undefined
    if (!one || (fault === 'swapped' && !other)) continue
    one.fault = fault
    if (other) {
      other.fault = fault
      one.comesInOn = other.strip
      other.comesInOn = one.strip
    }
  }
  return strangers
}

/** All whose cable, pad or microphone is looked at, put right. */
export const putRight = (strangers: readonly Stranger[], fault: StrangerFault): Stranger[] =>
  strangers.map((each) => (each.fault === fault ? { ...each, fault: null, comesInOn: each.strip } : each))

/**
 * What comes in at each lane with the gains as they are set now, in the order of the lanes. A cable in the wrong input meets that input’s
 * gain: its level is its own, moved by what the two chains differ.
 */
export function performancesOf(
  lanes: readonly Lane[],
  strangers: readonly Stranger[],
  evaluation: Evaluation,
): (Performance | null)[] {
  return lanes.map((lane) => {
    const stranger = strangers.find(({ comesInOn }) => comesInOn === lane.strip)
    const points = evaluation.strips.find(({ id }) => id === lane.strip)?.points ?? []
    const index = points.findIndex(({ stage }) => stage === lane.stage)
    if (!stranger || index < 0) return null
    const louder = stranger.louder + (stranger.fault === 'pad' ? PAD : 0) + apart(stranger, lane, evaluation)
    const own = performanceAt(points, index, louder)
    if (!own || stranger.fault !== 'dead') return own && { ...own, peak: own.peak + stranger.crest }
    return { ...own, average: DEAD, peak: DEAD + 10 }
  })
}

/** Of a microphone that gives nothing, dBFS. */
const DEAD = -140

/** How much louder the source of a swapped cable is than the one that was planned here, where both enter their chains, dB. */
function apart(stranger: Stranger, lane: Lane, evaluation: Evaluation): number {
  if (stranger.strip === lane.strip) return 0
  const [own, here] = [stranger.strip, lane.strip].map(
    (id) => evaluation.strips.find((each) => each.id === id)?.points.find(({ unit }) => unit === 'dBu')?.average,
  )
  return own === undefined || here === undefined ? 0 : own - here
}
