import { isLoudspeaker } from '../gear'
import { listenerGain } from '../gear/loudspeaker/chain'
import type { OpenMicrophone as HeardMicrophone } from '../chain/signal'
import type { Resolved, ResolvedStage } from '../gear/stage'
import type { Session } from '../session'

/** A microphone that is heard by loudspeakers of its own room. */
export interface OpenMicrophone {
  /** The strips that begin with it. */
  strips: string[]
  /** Gain once around for a small signal: from the capsule through the strips to the loudspeakers and back, dB. */
  loop: number
  /** The margin without it, dB; `null` where no microphone is left. */
  without: number | null
  /** The margin with its way into the loudspeakers 6 dB lower. */
  lowered: number
}

export interface Feedback {
  /** Gain before feedback, 6 dB kept back; `null` where the distance is not given. */
  margin: number | null
  microphones: OpenMicrophone[]
}

/** Kept back from the brink of feedback, dB (Davis and Patronis, Sound System Engineering; from memory). */
const STABILITY = 6

const powerOf = (decibels: number) => 10 ** (decibels / 10)
const levelOf = (power: number) => 10 * Math.log10(power)
const marginOf = (loops: readonly number[]) => -levelOf(loops.reduce((sum, loop) => sum + powerOf(loop), 0)) - STABILITY

/** A bus that ends in a loudspeaker, and the microphones that are heard from it. */
export interface LoudspeakerBus {
  readonly bus: string
  readonly loudspeaker: Resolved<'loudspeaker'>
  readonly microphones: readonly HeardMicrophone[]
}

export function loudspeakerBus(
  bus: string,
  stages: readonly ResolvedStage[],
  microphones: readonly HeardMicrophone[],
): LoudspeakerBus | null {
  const last = stages.at(-1)
  return isLoudspeaker(last) && microphones.length > 0 ? { bus, loudspeaker: last, microphones } : null
}

/**
 * The margin before feedback of the microphones that a bus plays: −10 lg Σ 10^(loop/10) − 6 over them. A loop is the greatest gain
 * that any curve on the way gives at any level, from the capsule on its axis to the loudspeaker at 1 m, − 20 lg D₁, + 10 lg n for n
 * loudspeakers; other loudspeakers of the room that play the same microphone add in power, each by its own distance where it has one.
 * Neither how loud the performer is nor how he stands to the pattern matters. With n equal loops it is the potential acoustic gain less the gain that is set, 10 lg NOM included
 * (Davis and Patronis, from memory).
 *
 * Cautious: microphones are taken as open to the loudspeaker, compressors as not working, gates as open, the room as without walls.
 * @param room all busses of the session that end in a loudspeaker; at least this one
 */
export function feedbackOf(
  { room: { layout } }: Session,
  own: LoudspeakerBus,
  room: readonly LoudspeakerBus[],
): Feedback {
  const distanceOf = ({ loudspeaker: { settings } }: LoudspeakerBus) =>
    settings.toMicrophone ?? layout?.microphoneToLoudspeaker
  const devices = new Set(own.microphones.map(({ device }) => device))
  const isKnown = room.every(
    (each) => distanceOf(each) !== undefined || !each.microphones.some(({ device }) => devices.has(device)),
  )
  const loops = own.microphones.map(({ device, strips }) => {
    const power = room.reduce((sum, each) => {
      const heard = each.microphones.find((one) => one.device === device)
      return heard ? sum + powerOf(heard.gain + atMicrophone(each.loudspeaker, distanceOf(each) ?? 1)) : sum
    }, 0)
    return { strips: [...strips], loop: levelOf(power) }
  })
  const all = loops.map(({ loop }) => loop)
  return {
    margin: isKnown ? marginOf(all) : null,
    microphones: loops
      .map((each, i) => {
        const others = all.filter((_, k) => k !== i)
        return {
          ...each,
          without: others.length === 0 ? null : marginOf(others),
          lowered: marginOf([...others, each.loop - 6]),
        }
      })
      .sort((a, b) => b.loop - a.loop),
  }
}

/** From the listener, where a bus’s level is, to the microphone: the count of loudspeakers stays in it. */
const atMicrophone = (loudspeaker: Resolved<'loudspeaker'>, distance: number): number =>
  10 * Math.log10(loudspeaker.specs.count) - listenerGain(loudspeaker) - 20 * Math.log10(distance)
